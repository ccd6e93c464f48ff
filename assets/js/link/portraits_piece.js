// People as pictures that change as they talk, all on one base line.
import { make } from "../house/elements.js";
import { Piece } from "./piece.js";

const BLINK_MS = 130;
const BLINK_EVERY_MS = [2600, 6400];
// One of ours has an address of its own.
const largest = (picture) => (picture.startsWith("/") ? picture : `/pictures/${picture}-4.webp`);

export class PortraitsPiece extends Piece {
  constructor(id, overrides) {
    super(id, "portraits", overrides);
    this.row = make("div", "portrait-row");
    this.element.append(this.row);
    this.figures = new Map();
    this.blinking = setInterval(() => this.blink(), 400);
  }

  remove() {
    clearInterval(this.blinking);
    super.remove();
  }

  style(given) {
    super.style(given);
    this.element.dataset.align = given.align;
    this.element.dataset.mirrored = given.mirrored;
    const set = (name, value) => this.element.style.setProperty(name, value);
    set("--figure", `${given.figure}%`);
    set("--apart", given.gap / 100);
    set("--swap", given.swap === "fade" ? `${given.swap_ms}ms` : "0ms");
    set("--bounce", given.bounce / 100);
    set("--quiet", given.quiet_opacity / 100);
    this.size();
  }

  voices(card) {
    const stay = new Set(card.p.map((person) => person.i));
    for (const [id, figure] of this.figures) {
      if (stay.has(id)) continue;
      figure.element.remove();
      this.figures.delete(id);
    }
    for (const person of card.p) this.draw(this.figures.get(person.i) ?? this.made(person), person);
    const wanted = card.p.map((person) => this.figures.get(person.i).element);
    if (!wanted.every((element, index) => this.row.children[index] === element)) this.row.append(...wanted);
    this.element.classList.toggle("dimmed", Boolean(card.q));
  }

  made({ i, n }) {
    const figure = { element: make("div", "portrait"), pictures: new Map(), blinkAt: this.nextBlink() };
    figure.element.dataset.voice = i;
    figure.element.title = n;
    this.figures.set(i, figure);
    return figure;
  }

  // Every picture is there from the start, so that none has to be waited for.
  draw(figure, { s: states, w: wanted, t, l }) {
    for (const [state, picture] of Object.entries(states)) {
      const known = figure.pictures.get(state);
      if (known?.dataset.picture === picture) continue;
      known?.remove();
      const image = make("img", "portrait-state");
      Object.assign(image, { alt: "", src: largest(picture), decoding: "async" });
      image.dataset.picture = picture;
      image.dataset.state = state;
      image.addEventListener("load", () => this.size());
      image.addEventListener("error", () => {
        image.remove();
        figure.pictures.delete(state);
        this.choose(figure);
      });
      figure.pictures.set(state, image);
      figure.element.append(image);
    }
    for (const [state, image] of figure.pictures)
      if (!(state in states)) {
        image.remove();
        figure.pictures.delete(state);
      }
    figure.wanted = wanted;
    figure.element.classList.toggle("talking", Boolean(t));
    figure.element.style.setProperty("--loud", (l ?? 0) / 10);
    this.choose(figure);
  }

  // By the pictures' own pixels: the highest of all fills the row, others stand as much lower as they are.
  size() {
    const images = [...this.figures.values()].flatMap((figure) => [...figure.pictures.values()]);
    const most = Math.max(1, ...images.map((image) => image.naturalHeight));
    for (const image of images)
      image.style.height = this.given.sized === "own" && image.naturalHeight > 0 ? `${(image.naturalHeight / most) * 100}%` : "";
  }

  choose(figure, state = figure.wanted) {
    const shown = [state, "silent", "talking"].find((one) => figure.pictures.has(one)) ?? [...figure.pictures.keys()][0];
    if (figure.shown === shown && figure.pictures.get(shown)?.classList.contains("shown")) return;
    figure.shown = shown;
    figure.element.dataset.state = shown ?? "";
    for (const [name, image] of figure.pictures) image.classList.toggle("shown", name === shown);
  }

  nextBlink() {
    const [least, most] = BLINK_EVERY_MS;
    return performance.now() + least + Math.random() * (most - least);
  }

  blink() {
    if (document.hidden || !this.given?.blinks) return;
    for (const figure of this.figures.values()) {
      if (performance.now() < figure.blinkAt || figure.wanted !== "silent" || !figure.pictures.has("blink")) continue;
      figure.blinkAt = this.nextBlink();
      this.choose(figure, "blink");
      setTimeout(() => this.choose(figure), BLINK_MS);
    }
  }
}
