// Above the picture: what is waiting, what is on air, and the ways to change that.
import { make } from "../house/elements.js";
import { say } from "../house/messages.js";
import { attempt, send } from "../house/send.js";
import { count } from "../house/words.js";

const element = (id) => document.querySelector(id);

export function bar(here) {
  const undo = () => attempt(() => send(here("undo")));
  const redo = () => attempt(() => send(here("redo")));

  async function putOnAir() {
    const done = await attempt(() => send(here("put-on-air")));
    if (done) say(`Revision ${done.revision} is on air.`);
  }

  element("#put-on-air").addEventListener("click", putOnAir);
  element("#undo").addEventListener("click", undo);
  element("#redo").addEventListener("click", redo);
  element("#set-back").addEventListener("click", async () => {
    const done = await attempt(() => send(here("set-back")));
    if (!done) return;
    element("#changes").open = false;
    say("The draft is what viewers see again.", { undo });
  });
  element("#at-once").addEventListener("change", (event) => attempt(() => send(here("at-once"), { on: event.target.checked ? "1" : "0" })));
  return { show, undo, redo, putOnAir };
}

function show({ size, revision, changes, undo, redo, air_at_once: atOnce }) {
  const state = revision === 0 ? "nothing on air yet" : `r${revision} is on air`;
  element("#stage-size").textContent = `${size.width} × ${size.height} · ${state}`;
  element("#undo").disabled = !undo;
  element("#redo").disabled = !redo;
  element("#set-back").disabled = changes.length === 0 || revision === 0;
  element("#at-once").checked = atOnce;
  element("#put-on-air").disabled = changes.length === 0;
  waiting(changes, atOnce);
  const words = changes.length > 0 ? changes : ["What you see here is what viewers see."];
  element("#changes-list").replaceChildren(...words.map((one) => make("li", "", one)));
}

function waiting(changes, atOnce) {
  const chip = element("#waiting");
  const some = changes.length > 0 ? `${count(changes.length, "change")} waiting` : "nothing waiting";
  chip.textContent = atOnce ? "every edit on air" : some;
  chip.classList.toggle("mind", changes.length > 0 && !atOnce);
  chip.classList.toggle("live", atOnce);
}
