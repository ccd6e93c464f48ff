// One chat piece: its lines, newest first in the document.
import { lineOf, recolour } from "./line.js";

export class ChatPiece {
  constructor(id, overrides) {
    this.overrides = overrides;
    this.lines = new Map();
    this.element = document.createElement("section");
    this.element.className = "piece chat";
    this.element.dataset.piece = id;
  }

  style({ css, newest }) {
    const all = { ...css, ...this.overrides.css };
    for (const [property, value] of Object.entries(all)) this.element.style.setProperty(property, value);
    this.element.dataset.newest = this.overrides.newest || newest;
    this.element.dataset.oneName = this.overrides.oneName;
  }

  add(card, arriving) {
    if (this.lines.has(card.i)) return;
    const line = lineOf(card);
    if (arriving) line.classList.add("arriving");
    this.lines.set(card.i, line);
    this.element.insertBefore(line, this.olderThan(card));
  }

  // The first line that was said before this one; what is told again from history finds its place.
  olderThan(card) {
    for (const line of this.element.children) {
      const time = Number(line.dataset.time);
      if (time < card.t || (time === card.t && Number(line.dataset.line) < card.i)) return line;
    }
    return null;
  }

  remove(id) {
    this.lines.get(id)?.remove();
    this.lines.delete(id);
  }

  recolour(id, colour) {
    const line = this.lines.get(id);
    if (line) recolour(line, colour);
  }

  // Leaves what stands already where it is, so that nothing is shown twice.
  replace(cards) {
    const stay = new Set(cards.map((card) => card.i));
    for (const id of [...this.lines.keys()]) if (!stay.has(id)) this.remove(id);
    for (const card of cards) {
      this.add(card, false);
      this.recolour(card.i, card.c);
    }
  }
}
