// Answering on the chats that allow it, and whether it went.
import { make } from "../house/elements.js";
import { say } from "../house/messages.js";
import { attempt } from "../house/send.js";
import { tellLacks } from "../feeds/lacks.js";
import { markOf } from "../link/marks.js";
import { answer, setup } from "./door.js";

const HOW_TO = "The host gives permission on Feeds, in the chat’s lane.";
const HOW = { sending: "on its way", went: "went", refused: "did not go" };

export class Answering {
  constructor() {
    this.box = document.querySelector("#answering");
    this.field = document.querySelector("#answer");
    this.choices = document.querySelector("#answer-feeds");
    this.form = document.querySelector("#answer-form");
    this.lacks = document.querySelector("#answer-lacks");
    this.how = document.querySelector("#answer-how");
    document.querySelector("#answer-form").addEventListener("submit", (event) => {
      event.preventDefault();
      attempt(async () => {
        const feeds = [...this.choices.querySelectorAll("input:checked")].map((input) => input.value);
        this.sent = (await answer(this.field.value, feeds)).answer;
        this.field.value = "";
      });
    });
  }

  tell(feeds, answers) {
    this.names = new Map(feeds.map((feed) => [feed.id, feed.name]));
    const able = feeds.filter((feed) => feed.answers);
    // Only who may give a permission is led to where it is given.
    const lacking = setup.hears ? feeds.filter((feed) => feed.lacks) : [];
    this.box.hidden = able.length + lacking.length === 0 || !setup.acts;
    this.form.hidden = able.length === 0;
    tellLacks(this.lacks, lacking);
    const known = able.map((feed) => feed.id).join();
    if (known !== this.known) {
      this.known = known;
      this.choices.replaceChildren(
        ...able.map((feed) => {
          const box = make("input");
          Object.assign(box, { type: "checkbox", value: feed.id, checked: true });
          box.setAttribute("aria-label", `Answer on ${feed.name}`);
          const label = make("label", "answer-feed", box, markOf(feed.mark), feed.name);
          label.style.setProperty("--feed", feed.mark[1]);
          return label;
        }),
      );
    }
    const last = answers?.find((one) => one.id === this.sent);
    this.how.textContent = last
      ? last.feeds
          .map(({ id, state, reason }) => `${feeds.find((feed) => feed.id === id)?.name ?? "A chat"}: ${reason ?? HOW[state]}`)
          .join(" · ")
      : "";
  }

  // To everybody; where no chat takes an answer, that is said instead of nothing.
  write() {
    if (!setup.acts) return;
    if (this.box.hidden || this.form.hidden) return say(`No chat takes answers from here. ${HOW_TO}`, { bad: true });
    this.field.focus();
  }

  // To a person, on their chat alone.
  to(card) {
    const boxes = [...this.choices.querySelectorAll("input")];
    const theirs = boxes.find((box) => Number(box.value) === card.fd);
    if (!theirs) return say(`${this.names?.get(card.fd) ?? "That chat"} takes no answers from here. ${HOW_TO}`, { bad: true });
    for (const box of boxes) box.checked = box === theirs;
    this.field.value = `@${card.n} `;
    this.field.focus();
  }
}
