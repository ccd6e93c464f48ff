import { follow } from "../house/desk.js";
import { button } from "../house/elements.js";
import { keys } from "../house/keys.js";
import { say } from "../house/messages.js";
import { Refused, sendJson } from "../house/send.js";
import { count } from "../house/words.js";
import { Brake } from "./brake.js";
import { Edit } from "./edit.js";
import { Hold } from "./hold.js";
import { LadderList } from "./ladder.js";
import { LeftOut } from "./left_out.js";
import { Replay } from "./replay.js";
import { Sets } from "./sets.js";
import { Trial } from "./trial.js";

const page = document.querySelector("[data-state]");
const feeds = JSON.parse(page.dataset.feeds);
const edit = new Edit(JSON.parse(page.dataset.state));
const ladder = new LadderList(document.querySelector("#ladder"), edit);
const hold = new Hold(edit.state.hold);
const brake = new Brake();
const leftOut = new LeftOut(feeds);
const foot = document.querySelector("#edit-foot");
const error = document.querySelector("#gate-error");
const sets = new Sets(edit, (state) => {
  edit.take(state);
  hold.tell(state.hold);
});
new Trial(edit, feeds);
new Replay(edit, feeds);

const kinds = document.querySelector("#kinds");
for (const { key, label, icon } of edit.state.kinds) {
  const add = async () => {
    kinds.closest("details").open = false;
    await edit.add(key);
    ladder.open = edit.rules.at(-1).id;
    ladder.draw();
  };
  kinds.append(button(label, icon, add, ""));
}

edit.heard(() => {
  foot.hidden = !edit.changed;
  error.hidden = true;
});

async function keep() {
  if (!edit.changed) return;
  try {
    edit.take(await sendJson("/gate/keep", { rules: edit.rules }));
    say("Counts from now on.");
  } catch (refused) {
    if (!(refused instanceof Refused)) throw refused;
    error.hidden = false;
    error.textContent = refused.message;
  }
}
document.querySelector("#edit-keep").addEventListener("click", keep);
document.querySelector("#edit-undo").addEventListener("click", () => edit.undo());

follow((show) => {
  const { in: came, off } = show.figures;
  document.querySelector("#hour").textContent = `Last hour: ${came} in`;
  document.querySelector("#off").textContent = `${off} kept off`;
  ladder.tellCounts(show.gate.rules, show.now);
  sets.tell(show.gate);
  if (!edit.changed) hold.tell(show.gate.hold);
  brake.tell(show.gate.brake);
  leftOut.tell(show.gate.left_out);
  const { held, waits } = show.gate;
  document.querySelector("#in-force").textContent =
    held === 0 ? "Nothing is held." : `${count(held, "line")} held${waits > 0 ? `, ${waits} until somebody decides` : ""}.`;
});

keys({
  t: ["Try a line", () => document.querySelector("#trial-text").focus()],
  k: ["Keep the edit", keep],
  u: ["Undo the edit", () => edit.undo()],
  h: ["Brake: hold everything", () => brake.send({ kind: "hold_all", minutes: "" })],
  o: ["Brake: chat off the picture", () => brake.send({ kind: "off_picture", minutes: "" })],
  b: ["Take the brake off", () => brake.send({ kind: "off" })],
});
