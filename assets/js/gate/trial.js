// One line tried at the gate, with the reasoning.
import { make } from "../house/elements.js";
import { attempt, sendJson } from "../house/send.js";

const PAUSE_MS = 180;
const ROLES = { viewer: "Viewer", subscriber: "Subscriber", supporter: "Supporter", moderator: "Moderator" };
const CHIPS = { drop: "off", hold: "mind", mask: "told", calm: "told", pass: "well" };

export class Trial {
  constructor(edit, feeds) {
    this.edit = edit;
    this.text = document.querySelector("#trial-text");
    this.told = document.querySelector("#trial-told");
    this.more = ["name", "feed", "again"].map((name) => document.querySelector(`#trial-${name}`));
    const roles = document.querySelector("#trial-roles");
    for (const [value, words] of Object.entries(ROLES)) {
      const radio = make("input");
      radio.type = "radio";
      radio.name = "trial-role";
      radio.value = value;
      radio.checked = value === "viewer";
      radio.addEventListener("change", () => this.later());
      roles.append(make("label", "", radio, words));
    }
    document.querySelector("#trial-feed").append(new Option("any chat", ""), ...feeds.map((feed) => new Option(feed.name, feed.id)));
    for (const field of [this.text, ...this.more]) field.addEventListener("input", () => this.later());
    edit.heard(() => this.later());
    this.show(null);
  }

  later() {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => attempt(() => this.ask()), PAUSE_MS);
  }

  async ask() {
    const text = this.text.value;
    if (text.trim() === "") return this.show(null);
    const [name, feed, again] = this.more.map((field) => field.value);
    const role = document.querySelector("[name=trial-role]:checked").value;
    const answer = await sendJson("/gate/try", { ...this.edit.sent, text, role, name, feed, again });
    if (text === this.text.value) this.show(answer.empty ? null : answer);
  }

  show(answer) {
    if (!answer)
      return this.told.replaceChildren(make("p", "said trial-none", "What each rule says stands here. Nobody else sees the line."));
    const row = (term, ...meaning) => make("div", "", make("dt", "", term), make("dd", "", ...meaning));
    const chip = (action, words) => make("span", `chip tag ${CHIPS[action]}`, words);
    const read = row("Read as", make("span", "figure trial-read", answer.read_as));
    const found = answer.found.map((one) => row(one.label, chip(one.action, one.words), make("bdi", "", ` ${one.why}`)));
    const none = answer.found.length === 0 ? [row("Rules", `${answer.looked} looked; none had anything to say`)] : [];
    const shown = answer.shown === null ? make("span", "said", " nowhere") : make("bdi", "trial-shown", ` ${answer.shown}`);
    const last = row("On screen", chip(answer.action, { hold: "Held", drop: "Kept off" }[answer.action] ?? answer.words), shown);
    last.classList.add("trial-end");
    this.told.replaceChildren(make("dl", "", read, ...found, ...none, last));
  }
}
