// What is done with the pieces that are chosen: arranged, kept together, copied, taken off.
import { say } from "../house/messages.js";
import { count } from "../house/words.js";

// Where copies are kept for other stages too.
const COPIED = "bavard-copied-pieces";

export function commands({ edits, draft, state, called, undo, wish, draw }) {
  const ids = () => [...state.chosen];
  const chosen = () => draft.document.pieces.filter((piece) => state.chosen.has(piece.id));
  async function several(edit) {
    if (state.chosen.size === 0) return;
    const done = await edits.send({ pieces: ids(), ...edit });
    if (done) draw();
    return done;
  }

  async function remove() {
    const pieces = chosen();
    if (pieces.length === 0) return;
    const words = pieces.length === 1 ? `${called(pieces[0])} is` : `${count(pieces.length, "piece")} are`;
    if (await edits.send({ do: "off", pieces: ids() })) say(`${words} taken off the stage.`, { undo });
  }

  async function duplicate() {
    const done = await several({ do: "duplicate" });
    if (done) wish(done.edits);
  }

  const copy = () => state.chosen.size > 0 && keep(chosen());

  async function paste() {
    const pieces = JSON.parse(localStorage.getItem(COPIED) ?? "[]");
    const done = pieces.length > 0 && (await edits.send({ do: "paste", pieces, beside: true }));
    if (done) wish(done.edits);
  }

  function orderBy(by) {
    const [piece] = ids();
    const at = draft.document.pieces.findIndex((one) => one.id === piece);
    if (piece) edits.send({ do: "order", piece, at: Math.max(0, at + by) });
  }

  function fit(how) {
    const [piece] = ids();
    if (how) edits.send({ do: "fit", piece, to: document.querySelector("#fit-to").value, how });
  }

  const group = () => several({ do: "group" });
  const ungroup = () => several({ do: "ungroup" });
  listen({ remove, group, ungroup, fit, arrange: (how) => how && several({ do: "arrange", how }) });
  return { remove, duplicate, copy, paste, orderBy, group, ungroup };
}

function keep(pieces) {
  localStorage.setItem(COPIED, JSON.stringify(pieces));
  say(`${count(pieces.length, "piece")} copied. Put down here or on another stage with Ctrl v.`);
}

function listen({ remove, group, ungroup, arrange, fit }) {
  const on = (selector, act) => document.querySelector(selector).addEventListener("click", act);
  on("#remove", remove);
  on("#remove-many", remove);
  on("#group", group);
  on("#ungroup", ungroup);
  on("#for-many", ({ target }) => arrange(target.closest("[data-how]")?.dataset.how));
  on("#fit-how", ({ target }) => fit(target.dataset.how));
}
