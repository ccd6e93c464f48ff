// What stands on the stage, kept as the frames say.
import { ChatPiece } from "./chat_piece.js";

const KINDS = { chat: ChatPiece };

export class Picture {
  constructor(root, overrides) {
    this.root = root;
    this.overrides = overrides;
    this.pieces = new Map();
    this.size = { width: 1920, height: 1080 };
    this.revision = 0;
    addEventListener("resize", () => this.fit());
    this.fit();
  }

  apply(frame) {
    if (frame.style) this.style(frame.style);
    this.each(frame.out, (piece, id) => piece.remove(id));
    this.each(frame.colours, (piece, [id, colour]) => piece.recolour(id, colour));
    if (frame.whole) for (const [id, piece] of this.pieces) piece.replace(frame.in?.[id] ?? []);
    else this.each(frame.in, (piece, card) => piece.add(card, !document.hidden));
  }

  // What came and went while the page was away never gets onto the picture.
  applyMissed(frames) {
    const gone = new Set(
      frames.flatMap((frame) => Object.entries(frame.out ?? {}).flatMap(([piece, ids]) => ids.map((id) => `${piece}/${id}`))),
    );
    for (const frame of frames) {
      const lines = Object.entries(frame.in ?? {}).map(([piece, cards]) => [
        piece,
        cards.filter((card) => !gone.has(`${piece}/${card.i}`)),
      ]);
      this.apply({ ...frame, in: Object.fromEntries(lines) });
    }
  }

  empty() {
    this.root.replaceChildren();
    this.pieces.clear();
  }

  each(byPiece, act) {
    for (const [id, items] of Object.entries(byPiece ?? {})) {
      const piece = this.pieces.get(id);
      if (piece) for (const item of items) act(piece, item);
    }
  }

  style({ width, height, revision, pieces }) {
    this.size = { width, height };
    this.revision = revision;
    const wanted = new Set(pieces.map((piece) => piece.id));
    for (const [id, piece] of this.pieces) {
      if (wanted.has(id)) continue;
      piece.element.remove();
      this.pieces.delete(id);
    }
    for (const given of pieces) this.place(given);
    this.fit();
  }

  place(given) {
    const piece = this.pieces.get(given.id) ?? new KINDS[given.kind](given.id, this.overrides);
    this.pieces.set(given.id, piece);
    piece.style(given);
    this.root.append(piece.element);
  }

  // In a window of another size everything is drawn anew at that size.
  fit() {
    const { width, height } = this.size;
    const ratio = Math.min(innerWidth / width, innerHeight / height) || 1;
    const left = (innerWidth - width * ratio) / 2;
    const top = (innerHeight - height * ratio) / 2;
    Object.assign(this.root.style, {
      width: `${width}px`,
      height: `${height}px`,
      transform: ratio === 1 && left === 0 && top === 0 ? "none" : `translate(${left}px, ${top}px) scale(${ratio})`,
    });
  }
}
