// What is done with the pieces that are chosen: arranged, kept together, copied, taken off.
import { say } from "../house/messages.js";
import { count } from "../house/words.js";

// Where copies are kept for other stages too.
const COPIED = "bavard-copied-pieces";

export class Commands {
  constructor({ edits, draft, state, called, undo, wish, draw }) {
    Object.assign(this, { edits, draft, state, called, undo, wish, draw });
    this.listen();
  }

  listen() {
    const on = (selector, act) => document.querySelector(selector).addEventListener("click", act);
    on("#remove", () => this.remove());
    on("#remove-many", () => this.remove());
    on("#group", () => this.group());
    on("#ungroup", () => this.ungroup());
    on("#for-many", ({ target }) => {
      const { how } = target.closest("[data-how]")?.dataset ?? {};
      if (how) this.several({ do: "arrange", how });
    });
    on("#fit-how", ({ target: { dataset } }) => {
      const [piece] = this.ids;
      if (dataset.how) this.edits.send({ do: "fit", piece, to: document.querySelector("#fit-to").value, how: dataset.how });
    });
  }

  get ids() {
    return [...this.state.chosen];
  }

  get chosen() {
    return this.draft.document.pieces.filter((piece) => this.state.chosen.has(piece.id));
  }

  async several(edit) {
    if (this.state.chosen.size === 0) return;
    const done = await this.edits.send({ pieces: this.ids, ...edit });
    if (done) this.draw();
    return done;
  }

  async remove() {
    const pieces = this.chosen;
    if (pieces.length === 0) return;
    const words = pieces.length === 1 ? `${this.called(pieces[0])} is` : `${count(pieces.length, "piece")} are`;
    if (await this.edits.send({ do: "off", pieces: this.ids })) say(`${words} taken off the stage.`, { undo: this.undo });
  }

  async duplicate() {
    const done = await this.several({ do: "duplicate" });
    if (done) this.wish(done.edits);
  }

  copy() {
    if (this.state.chosen.size === 0) return;
    localStorage.setItem(COPIED, JSON.stringify(this.chosen));
    say(`${count(this.state.chosen.size, "piece")} copied. Put down here or on another stage with Ctrl v.`);
  }

  async paste() {
    const pieces = JSON.parse(localStorage.getItem(COPIED) ?? "[]");
    const done = pieces.length > 0 && (await this.edits.send({ do: "paste", pieces, beside: true }));
    if (done) this.wish(done.edits);
  }

  orderBy(by) {
    const [piece] = this.ids;
    const at = this.draft.document.pieces.findIndex((one) => one.id === piece);
    if (piece) this.edits.send({ do: "order", piece, at: Math.max(0, at + by) });
  }

  group() {
    return this.several({ do: "group" });
  }

  ungroup() {
    return this.several({ do: "ungroup" });
  }
}
