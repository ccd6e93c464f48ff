// A made-up voice room in this stage's draft: which one is played, and the host's keys that let one of it talk.
import { make } from "../house/elements.js";
import { attempt, send } from "../house/send.js";

const TYPES = "input, textarea, select, [contenteditable]";

export function voiceRehearsal(here, cast) {
  const scripts = document.querySelector("#voice-scripts");
  const now = document.querySelector("#voices-now");
  const talkers = new Talkers(here, cast);
  scripts.addEventListener("change", ({ target }) => attempt(() => send(here("voices"), { script: target.value })));

  return ({ voices }) => {
    const radio = scripts.querySelector(`[value="${voices?.key ?? ""}"]`);
    if (radio) radio.checked = true;
    now.textContent = now.title = voices ? radio?.parentElement.textContent.trim() : "Voices";
    talkers.draw(voices?.people?.length > 0 ? voices.people : cast);
    talkers.light(voices?.talk);
  };
}

// Those who can be let talk, each by a button and a figure on the keyboard, for as long as it is held.
class Talkers {
  constructor(here, people) {
    this.here = here;
    this.box = document.querySelector("#talkers");
    this.held = new Set();
    addEventListener("keydown", (event) => this.down(event));
    addEventListener("keyup", ({ key }) => {
      const person = this.people[Number(key) - 1];
      if (person) this.talk(person[0], false);
    });
    addEventListener("blur", () => {
      for (const who of [...this.held]) this.talk(who, false);
    });
    this.draw(people);
  }

  down(event) {
    const person = this.people[Number(event.key) - 1];
    if (!person || event.repeat || event.ctrlKey || event.altKey || event.metaKey || event.target.closest?.(TYPES)) return;
    event.preventDefault();
    this.talk(person[0], true);
  }

  talk(who, on) {
    if (on === this.held.has(who)) return;
    if (on) this.held.add(who);
    else this.held.delete(who);
    attempt(() => send(this.here("voices/talk"), { who, on: on ? "1" : "0" }));
  }

  draw(people) {
    this.people = people;
    const drawn = JSON.stringify(people);
    if (this.box.dataset.drawn === drawn) return;
    this.box.dataset.drawn = drawn;
    this.box.replaceChildren(...people.map((person, index) => this.key(person, index)));
  }

  key([who, name], index) {
    const key = make("button", "button talker", make("kbd", "", String(index + 1)), make("span", "", name));
    key.type = "button";
    key.addEventListener("pointerdown", () => this.talk(who, true));
    for (const end of ["pointerup", "pointerleave", "blur"]) key.addEventListener(end, () => this.talk(who, false));
    key.dataset.talker = who;
    return key;
  }

  light(talk) {
    for (const key of this.box.children) key.classList.toggle("on", Boolean(talk?.includes(key.dataset.talker)));
  }
}
