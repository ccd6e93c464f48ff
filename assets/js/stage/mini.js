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
    const [x, y, width, height] = box;
    const { clientWidth, clientHeight } = this.root;
    const ratio = Math.min(clientWidth / width, clientHeight / height) || 1;
    const stage = make("div", "mini-stage");
    const left = (clientWidth - width * ratio) / 2 - x * ratio;
    const top = (clientHeight - height * ratio) / 2 - y * ratio;
    stage.style.transform = `translate(${left}px, ${top}px) scale(${ratio})`;
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

  clear() {
    for (const piece of this.pieces) piece.remove();
    this.pieces = [];
  }
}
