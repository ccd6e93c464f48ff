// The newest and the best: a title, and rows of a name and what stands beside it.
import { make } from "../house/elements.js";
import { Piece, plateOf } from "./piece.js";

export class NewestPiece extends Piece {
  constructor(id, overrides) {
    super(id, "newest", overrides);
    this.title = make("span", "text newest-title");
    this.rows = make("div", "newest-rows");
    this.element.append(plateOf("newest-box", this.title, this.rows));
  }

  style(given) {
    super.style(given);
    this.title.textContent = given.title;
    this.title.hidden = given.title === "";
    this.element.dataset.what = given.what;
    this.draw();
  }

  counted({ rows }) {
    this.told = rows;
    this.draw();
  }

  draw() {
    if (!this.told) return;
    const shown = this.told.length > 0 ? this.told : [[this.given.otherwise, ""]];
    this.rows.replaceChildren(
      ...shown.map(([name, words]) => {
        const figure = words && (this.given.figures || name === "") ? make("span", "text newest-figure", words) : null;
        return make("div", "newest-row", name ? make("bdi", "newest-name", name) : null, figure);
      }),
    );
  }
}
