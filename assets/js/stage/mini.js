// Pieces as the air page draws them, small: by the same code, with made-up lines and samples in them.
import { make } from "../house/elements.js";
import { pieceOf } from "../link/picture.js";

export class Mini {
  // root: where it is drawn
  constructor(root) {
    this.root = root;
    this.pieces = [];
  }

  // box: what is seen of the stage, in its pixels; pieces: each with its style, and cards or a sample
  draw(box, pieces) {
    this.clear();
    const stage = make("div", "mini-stage");
    this.stage = stage;
    this.look(box);
    this.root.replaceChildren(stage);
    for (const { style, cards, sample } of pieces) {
      const piece = pieceOf(style.kind, style.id);
      if (!piece) continue;
      this.pieces.push(piece);
      stage.append(piece.element);
      piece.style(style);
      for (const card of cards ?? []) piece.add(card, true);
      if (sample) piece[sample[0]]?.(sample[1], false);
    }
    // As it stands once it has come.
    for (const motion of stage.getAnimations?.({ subtree: true }) ?? [])
      if (Number.isFinite(motion.effect?.getTiming().iterations)) motion.finish();
  }

  look([x, y, width, height]) {
    const { clientWidth, clientHeight } = this.root;
    this.ratio = Math.min(clientWidth / width, clientHeight / height) || 1;
    const left = (clientWidth - width * this.ratio) / 2 - x * this.ratio;
    const top = (clientHeight - height * this.ratio) / 2 - y * this.ratio;
    this.stage.style.transform = `translate(${left}px, ${top}px) scale(${this.ratio})`;
  }

  // Comes so near that what fits these is as large as there is room, with so much around it, of its longer side.
  lookAt(selector, around) {
    const from = this.stage.getBoundingClientRect();
    const rects = [...this.stage.querySelectorAll(selector)].map((one) => one.getBoundingClientRect()).filter(({ width }) => width > 0);
    if (rects.length === 0) return;
    const edge = (which, side, at) => (Math[which](...rects.map((rect) => rect[side])) - from[at]) / this.ratio;
    const [left, right] = [edge("min", "left", "left"), edge("max", "right", "left")];
    const [top, bottom] = [edge("min", "top", "top"), edge("max", "bottom", "top")];
    const more = Math.max(right - left, bottom - top) * around;
    this.look([left - more, top - more, right - left + 2 * more, bottom - top + 2 * more]);
  }

  clear() {
    for (const piece of this.pieces) piece.remove();
    this.pieces = [];
  }
}
