// Lines of text to what is said: each comes and goes as Ruby says, by the piece's own motion.
import { make } from "../house/elements.js";
import { arrive, depart } from "./coming.js";
import { Piece } from "./piece.js";

export class CaptionsPiece extends Piece {
  constructor(id, overrides) {
    super(id, "captions", overrides);
    this.standing = new Map();
  }

  live({ lines }) {
    const wanted = new Set(lines.map(([id]) => id));
    for (const [id, element] of this.standing) if (!wanted.has(id)) this.leave(id, element);
    for (const [id, text] of lines) if (!this.standing.has(id)) this.enter(id, text);
  }

  enter(id, text) {
    const words = make("span", "text", text);
    words.dir = "auto";
    const element = make("p", "caption plate", words);
    this.standing.set(id, element);
    this.element.append(element);
    arrive(element, this.given.motion);
  }

  leave(id, element) {
    this.standing.delete(id);
    depart(element, this.given.motion);
  }
}
