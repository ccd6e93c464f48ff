// Words that become a picture, whichever way they are written.
import { button, make } from "../house/elements.js";
import { say } from "../house/messages.js";
import { attempt, send } from "../house/send.js";
import { sourceOf } from "../link/dress.js";
import { pictureChoice } from "./choice.js";
import { ask } from "./sheet.js";

export class Phrases {
  constructor(changed) {
    this.changed = changed;
    this.list = document.querySelector("#phrases");
    document.querySelector("#phrase-add").addEventListener("click", () => this.add());
  }

  show({ phrases, shelves }) {
    this.shelves = shelves;
    const none = make("span", "said", "“reed warbler” can be drawn as a bird, for instance.");
    this.list.replaceChildren(...(phrases.length === 0 ? [none] : phrases.map((phrase) => this.phrase(phrase))));
  }

  phrase(phrase) {
    const image = make("img");
    Object.assign(image, { src: sourceOf(phrase.picture, 28), alt: "", height: 28 });
    const remove = button("", "x", () => this.remove(phrase), "button plain");
    remove.setAttribute("aria-label", `“${phrase.words}” stays words`);
    return make("span", "phrase", `“${phrase.words}” → `, image, remove);
  }

  add() {
    ask({
      title: "Words that become a picture",
      about: "In any case, with whatever stands around them.",
      button: "Make it so",
      fields: [
        { name: "words", label: "The words", placeholder: "reed warbler" },
        { name: "address", label: "A picture’s address, or choose one of yours", placeholder: "https://reedmere.example/reed-warbler.png" },
      ],
      extra: [pictureChoice(this.shelves)],
      work: async (values) => {
        await send("/dress/phrases", values);
        this.changed();
      },
    });
  }

  async remove(phrase) {
    const path = `/dress/phrases/${phrase.id}`;
    if (await attempt(() => send(`${path}/remove`)))
      say(`“${phrase.words}” stays words.`, { undo: () => attempt(() => send(`${path}/put-back`)).then(this.changed) });
    this.changed();
  }
}
