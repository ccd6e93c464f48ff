// A made-up voice room in this stage's draft: which one is played, and the host's keys that let one of it talk.
import { make } from "../house/elements.js";
import { attempt, send } from "../house/send.js";

const TYPES = "input, textarea, select, [contenteditable]";

export function voiceRehearsal(here, cast) {
  const scripts = document.querySelector("#voice-scripts");
  const now = document.querySelector("#voices-now");
  const talkers = document.querySelector("#talkers");
  const held = new Set();
  let people = cast;

  scripts.addEventListener("change", ({ target }) => attempt(() => send(here("voices"), { script: target.value })));
  const talk = (who, on) => {
    if (on === held.has(who)) return;
    if (on) held.add(who);
    else held.delete(who);
    attempt(() => send(here("voices/talk"), { who, on: on ? "1" : "0" }));
  };
  const letGo = () => [...held].map((who) => talk(who, false));

  addEventListener("keydown", (event) => {
    const person = people[Number(event.key) - 1];
    if (!person || event.repeat || event.ctrlKey || event.altKey || event.metaKey || event.target.closest?.(TYPES)) return;
    event.preventDefault();
    talk(person[0], true);
  });
  addEventListener("keyup", (event) => {
    const person = people[Number(event.key) - 1];
    if (person) talk(person[0], false);
  });
  addEventListener("blur", letGo);

  function draw() {
    const drawn = JSON.stringify(people);
    if (talkers.dataset.drawn === drawn) return;
    talkers.dataset.drawn = drawn;
    talkers.replaceChildren(
      ...people.map(([who, name], index) => {
        const key = make("button", "button talker", make("kbd", "", String(index + 1)), make("span", "", name));
        key.type = "button";
        key.addEventListener("pointerdown", () => talk(who, true));
        for (const end of ["pointerup", "pointerleave", "blur"]) key.addEventListener(end, () => talk(who, false));
        key.dataset.talker = who;
        return key;
      }),
    );
  }
  draw();

  return ({ voices }) => {
    people = voices?.people?.length > 0 ? voices.people : cast;
    const radio = scripts.querySelector(`[value="${voices?.key ?? ""}"]`);
    if (radio) radio.checked = true;
    now.textContent = voices ? radio?.parentElement.textContent.trim() : "Voices";
    draw();
    for (const key of talkers.children) key.classList.toggle("on", Boolean(voices?.talk.includes(key.dataset.talker)));
  };
}
