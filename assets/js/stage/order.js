// The pieces from front to back, below the picture: chosen by click, put elsewhere by dragging or by Alt with arrows.
import { icon, make } from "../house/elements.js";

export class Order {
  // tell: choose(ids), order(id, at), called(piece)
  constructor(root, kinds, tell) {
    this.root = root;
    this.kinds = kinds;
    this.tell = tell;
  }

  show({ pieces }, chosen) {
    this.ids = pieces.map((piece) => piece.id);
    const front = [...pieces].reverse();
    const drawn = JSON.stringify(
      front.map((piece) => [piece.id, this.tell.called(piece), piece.locked, piece.hidden, piece.side, chosen.has(piece.id)]),
    );
    if (this.root.dataset.drawn === drawn) return;
    this.root.dataset.drawn = drawn;
    const focused = document.activeElement?.dataset.orderOf;
    this.root.replaceChildren(...front.map((piece) => this.chip(piece, chosen.has(piece.id))));
    if (focused) this.root.querySelector(`[data-order-of="${focused}"]`)?.focus();
  }

  chip(piece, chosen) {
    const state = piece.hidden ? "eye-off" : piece.locked ? "lock" : this.kinds[piece.kind].icon;
    const chip = make(
      "button",
      `button${chosen ? " chosen" : ""}${piece.side === "behind" ? " behind" : ""}`,
      icon(state),
      this.tell.called(piece),
    );
    chip.type = "button";
    chip.dataset.orderOf = piece.id;
    chip.draggable = true;
    chip.setAttribute("role", "option");
    chip.setAttribute("aria-selected", chosen);
    chip.addEventListener("click", (event) => this.tell.choose(piece.id, event.shiftKey || event.ctrlKey || event.metaKey));
    chip.addEventListener("dragstart", (event) => event.dataTransfer.setData("text/piece", piece.id));
    chip.addEventListener("dragover", (event) => event.dataTransfer.types.includes("text/piece") && event.preventDefault());
    chip.addEventListener("drop", (event) => this.tell.order(event.dataTransfer.getData("text/piece"), this.ids.indexOf(piece.id)));
    chip.addEventListener("keydown", (event) => {
      const by = event.altKey && { ArrowLeft: 1, ArrowRight: -1 }[event.key];
      if (!by) return;
      event.preventDefault();
      this.tell.order(piece.id, this.ids.indexOf(piece.id) + by);
    });
    return chip;
  }
}
