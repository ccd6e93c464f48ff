// The line that is being answered: large, over everything else, until it is taken off.
import { lineOf } from "./line.js";

// Of the stage's height.
const EMOTE_RATIO = 0.07;
const TEXT_RATIO = 0.052;

export class LargeLine {
  constructor(root) {
    this.root = root;
    this.element = document.createElement("section");
    this.element.className = "large-line";
    this.element.hidden = true;
    root.append(this.element);
  }

  show(card) {
    const line = card?.i ?? null;
    if (line === this.line) return;
    this.line = line;
    this.element.hidden = !card;
    this.element.style.fontSize = `${this.root.offsetHeight * TEXT_RATIO}px`;
    this.element.replaceChildren(...(card ? [lineOf(card, { height: this.root.offsetHeight * EMOTE_RATIO, still: false })] : []));
  }
}
