// Emotes on their way, as Ruby worked them out. Still ones are drawn on one canvas; those that move by themselves, or grow, are
// elements of their own.
import { make } from "../house/elements.js";
import { sourceOf } from "./dress.js";
import { FlightCanvas, IN_MS, OUT_MS } from "./flight_canvas.js";
import { Piece } from "./piece.js";

export class FlurryPiece extends Piece {
  constructor(id, overrides) {
    super(id, "flurry", overrides);
    this.flying = new Map();
    this.images = new Map();
    this.canvas = new FlightCanvas(this.element);
  }

  fly(cards) {
    for (const card of cards) if (!this.flying.has(card.i)) this.start(card);
    this.tell();
  }

  // card: i id, l line, e [words, picture, ratio, moves], h height, ms length, w wait, z depth,
  // p points [share in thousandths, x, y, degrees], n people, s scale, g ms to grow in
  start(card) {
    const [words, picture, , moves] = card.e;
    if (card.n || moves) return this.element.append(this.elementOf(card, words, picture));
    this.flying.set(card.i, { line: card.l });
    this.canvas.add({ ...card, image: this.image(picture, card.h), done: () => this.landed(card.i) });
  }

  // One for all flights of it.
  image(picture, height) {
    const source = sourceOf(picture, height);
    const known = this.images.get(source);
    if (known) return known;
    const image = new Image();
    image.src = source;
    image.addEventListener("error", () => this.canvas.drop((flight) => flight.image === image));
    this.images.set(source, image);
    return image;
  }

  elementOf({ i, l, e: [, , ratio], h, ms, w, z, p: points, n, s, g }, words, picture) {
    const image = make("img");
    Object.assign(image, { alt: "", title: words, decoding: "async", src: sourceOf(picture, h) });
    if (ratio) image.style.aspectRatio = ratio;
    const body = make("span", "flight-body", image);
    const element = make("span", "flight", body);
    element.style.setProperty("--h", `${h}px`);
    element.style.zIndex = Math.round((1 - z) * 100) + 1;
    const steps = points.map(([share, x, y, turn]) => ({
      offset: share / 1000,
      transform: `translate3d(${x}px, ${y}px, 0) translate(-50%, -50%) rotate(${turn}deg)`,
    }));
    const timing = { duration: ms, delay: w, fill: "both" };
    const way = element.animate(steps, timing);
    const shown = [0, Math.min(0.3, IN_MS / ms), 1 - Math.min(OUT_MS / ms, 1 / 3), 1];
    element.animate(
      shown.map((offset, at) => ({ offset, opacity: at === 3 || (at === 0 && !g) ? 0 : 1 })),
      timing,
    );
    if (g) image.animate([{ scale: 0 }, { scale: 1 }], { duration: g, delay: w, fill: "both", easing: "ease-out" });
    const flight = { element, body, line: l };
    if (n) this.count(flight, n, s);
    way.onfinish = () => this.land(i);
    image.addEventListener("error", () => this.land(i), { once: true });
    this.flying.set(i, flight);
    return element;
  }

  // The same emote from many: it grows, and says from how many.
  count(flight, people, scale) {
    flight.badge ??= flight.body.appendChild(make("b", "flight-count"));
    flight.badge.textContent = `×${people}`;
    flight.body.style.setProperty("--grown", scale);
  }

  grow(list) {
    for (const [id, people, scale] of list) if (this.flying.get(id)?.body) this.count(this.flying.get(id), people, scale);
  }

  ground(lines) {
    this.canvas.drop((flight) => lines.includes(flight.l));
    for (const [id, flight] of this.flying) if (lines.includes(flight.line)) this.land(id);
  }

  land(id) {
    this.flying.get(id)?.element?.remove();
    this.landed(id);
  }

  landed(id) {
    this.flying.delete(id);
    this.tell();
  }

  tell() {
    this.element.dataset.flying = this.flying.size;
  }

  remove() {
    this.canvas.drop(() => true);
    this.canvas.rest();
    this.flying.clear();
    super.remove();
  }
}
