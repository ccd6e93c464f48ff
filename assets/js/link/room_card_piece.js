// A voice room's name and picture, how many are there, and how to join.
import { make, svg } from "../house/elements.js";
import { Piece, plateOf } from "./piece.js";

export class RoomCardPiece extends Piece {
  constructor(id, overrides) {
    super(id, "room-card", overrides);
    this.box = plateOf("");
    this.picture = make("img", "room-picture");
    this.picture.alt = "";
    this.picture.addEventListener("error", () => {
      this.picture.hidden = true;
    });
    this.name = make("b", "room-name text");
    this.count = make("span", "room-count text");
    this.join = make("span", "room-join text");
    this.code = svg("svg", { class: "room-code", role: "img", "aria-label": "Code to join the room" });
    this.path = svg("path", {});
    this.code.append(this.path);
    for (const text of [this.name, this.count, this.join]) text.dir = "auto";
    this.box.append(this.picture, make("div", "room-words", this.name, this.count, this.join), this.code);
    this.element.append(this.box);
  }

  style(given) {
    super.style(given);
    this.draw();
  }

  voices(card) {
    this.card = card;
    this.draw();
  }

  draw() {
    const card = this.card?.n ? this.card : {};
    this.name.textContent = this.given.title === "shown" ? (card.n ?? "") : "";
    this.count.textContent = { shown: card.w, "on the service": card.o }[this.given.count] ?? "";
    this.join.textContent = this.given.join;
    for (const text of [this.name, this.count, this.join]) text.hidden = text.textContent === "";
    const picture = this.given.picture === "shown" && card.f;
    this.picture.hidden = !picture;
    if (picture && this.drawn !== picture) this.picture.src = `/pictures/${picture}-4.webp`;
    this.drawn = picture;
    this.code.toggleAttribute("hidden", !card.k);
    if (card.k) {
      const [modules, path] = card.k;
      this.code.setAttribute("viewBox", `0 0 ${modules} ${modules}`);
      this.path.setAttribute("d", path);
    }
    this.element.classList.toggle("dimmed", Boolean(card.q));
    this.element.classList.toggle("empty", !card.n);
  }
}
