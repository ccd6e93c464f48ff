// Emotes on their way, as Ruby worked them out: each is one element, moved by the compositor alone.
import { make } from "../house/elements.js";
import { sourceOf } from "./dress.js";
import { Piece } from "./piece.js";

const IN_MS = 220;
const OUT_MS = 360;

export class FlurryPiece extends Piece {
  constructor(id, overrides) {
    super(id, "flurry", overrides);
    this.flying = new Map();
  }

  fly(cards) {
    for (const card of cards) if (!this.flying.has(card.i)) this.start(card);
  }

  // card: i id, l line, e [words, picture, ratio, moves], h height, ms length, w wait, z depth,
  // p points [share in thousandths, x, y, degrees], n people, s scale
  start({ i, l, e: [words, picture, ratio], h, ms, w, z, p: points, n, s }) {
    const image = make("img");
    Object.assign(image, { alt: "", decoding: "async", src: sourceOf(picture, h) });
    image.title = words;
    const body = make("span", "flight-body", image);
    const element = make("span", "flight", body);
    element.style.setProperty("--h", `${h}px`);
    element.style.zIndex = Math.round((1 - z) * 100);
    if (ratio) image.style.aspectRatio = ratio;
    const way = element.animate(
      points.map(([share, x, y, turn]) => ({
        offset: share / 1000,
        transform: `translate3d(${x}px, ${y}px, 0) translate(-50%, -50%) rotate(${turn}deg)`,
      })),
      { duration: ms, delay: w, fill: "both" },
    );
    const out = Math.min(OUT_MS, ms / 3);
    const seen = [
      { offset: 0, opacity: 0 },
      { offset: Math.min(0.3, IN_MS / ms), opacity: 1 },
      { offset: 1 - out / ms, opacity: 1 },
      { offset: 1, opacity: 0 },
    ];
    element.animate(seen, { duration: ms, delay: w, fill: "both" });
    const flight = { element, body, line: l };
    if (n) this.count(flight, n, s);
    way.onfinish = () => this.land(i);
    image.addEventListener("error", () => this.land(i), { once: true });
    this.flying.set(i, flight);
    this.element.append(element);
  }

  // The same emote from many: it grows, and says from how many.
  count(flight, people, scale) {
    flight.badge ??= flight.body.appendChild(make("b", "flight-count"));
    flight.badge.textContent = `×${people}`;
    flight.body.style.setProperty("--grown", scale);
  }

  grow(list) {
    for (const [id, people, scale] of list) if (this.flying.has(id)) this.count(this.flying.get(id), people, scale);
  }

  ground(lines) {
    for (const [id, flight] of this.flying) if (lines.includes(flight.line)) this.land(id);
  }

  land(id) {
    this.flying.get(id)?.element.remove();
    this.flying.delete(id);
  }

  remove() {
    this.flying.clear();
    super.remove();
  }
}
