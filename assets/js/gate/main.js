import { follow } from "../house/desk.js";
import { button } from "../house/elements.js";
import { keys } from "../house/keys.js";
import { say } from "../house/messages.js";
import { attempt, get, Refused, sendJson } from "../house/send.js";
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

// What is in force is another now than what this page shows.
async function renew(words) {
  const { begun } = edit;
  const state = await attempt(() => get("/gate/state"));
  if (!state) return;
  await edit.settled();
  // What was said before it was kept here is older than what is here.
  if (edit.begun !== begun) {
    known = edit.state.version;
    return;
  }
  if (state.version === edit.state.version) return;
  if (!edit.changed) return edit.take(state);
  edit.rebase(state);
  error.hidden = false;
  error.textContent = words;
}

const MEANWHILE =
  "Somebody changed the rules while you were editing. “Undo edit” shows what is in force now; “Keep edit” puts your rules in its place.";

// Once for each version that is told.
let known = edit.state.version;
function renewed(version) {
  if (version === known) return;
  known = version;
  renew(MEANWHILE);
}

async function keep() {
  if (edit.busy) return;
  await edit.settled();
  if (!edit.changed || edit.busy) return;
  edit.busy = true;
  try {
    edit.take(await sendJson("/gate/keep", { rules: edit.rules, from: edit.state.version }));
    say("Counts from now on.");
  } catch (refused) {
    if (!(refused instanceof Refused)) throw refused;
    error.hidden = false;
    error.textContent = refused.message;
    if (refused.field === "rules") await renew(refused.message);
  } finally {
    edit.busy = false;
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
  if (show.gate.version !== edit.state.version && !edit.busy) renewed(show.gate.version);
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
