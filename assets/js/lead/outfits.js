// Outfits to choose from: each drawn as it would stand on this stage; the one chosen is seen large at once, in the draft.
import { make } from "../house/elements.js";
import { attempt, get, sendJson } from "../house/send.js";
import { Mini } from "../stage/mini.js";

// Around the lines, of their longer side.
const AROUND = 0.04;

export class Outfits {
  // frame: the picture behind, as it is shown large
  constructor(list, frame) {
    this.list = list;
    this.frame = frame;
    this.minis = [];
  }

  async open(stage) {
    if (this.stage === stage && this.behind === this.frame.style.backgroundImage + this.frame.dataset.backdrop) return;
    this.stage = stage;
    this.behind = this.frame.style.backgroundImage + this.frame.dataset.backdrop;
    const told = await attempt(() => get(`/stage/${stage}/looks?form=dark`));
    if (!told) return;
    const looks = told.looks.filter((look) => !look.own);
    for (const mini of this.minis) mini.clear();
    this.list.replaceChildren(...looks.map((look) => this.card(look)));
    this.minis = looks.map((look, at) => {
      const mini = new Mini(this.list.children[at].firstElementChild);
      mini.draw(told.box, look.pieces);
      mini.lookAt(".chat .line", AROUND);
      return mini;
    });
    this.wear(this.worn);
  }

  card({ key, name, behind }) {
    const picture = make("span", "lead-outfit-picture");
    picture.dataset.backdrop = this.frame.dataset.backdrop === "none" ? behind : this.frame.dataset.backdrop;
    picture.style.backgroundImage = this.frame.style.backgroundImage;
    const card = make("button", "lead-card lead-outfit", picture, make("b", "", name));
    Object.assign(card, { type: "button", title: name });
    card.setAttribute("role", "radio");
    card.dataset.outfit = key;
    card.addEventListener("click", () => attempt(() => sendJson(`/stage/${this.stage}/edits`, { do: "outfit", outfit: key })));
    return card;
  }

  wear(outfit) {
    this.worn = outfit;
    for (const card of this.list.children) card.setAttribute("aria-checked", card.dataset.outfit === outfit);
  }
}
