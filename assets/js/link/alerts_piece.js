// Cues as they play: words with a picture, coming and going by the piece's own motion.
import { make } from "../house/elements.js";
import { fragmentsOf } from "./line.js";
import { Piece, plateOf } from "./piece.js";

// What is nearly over is not begun.
const LEAST_MS = 400;
const largest = (picture) => `/pictures/${picture}-4.webp`;

export class AlertsPiece extends Piece {
  constructor(id, overrides) {
    super(id, "alerts", overrides);
  }

  style(given) {
    super.style(given);
    this.options = { height: Number.parseFloat(given.css["--text-size"]) };
  }

  // card: as Ruby's CueDesk#card, or null once it is over; left: of its time, where it plays already; off: was pulled
  alert(card) {
    if (card?.off) this.off();
    if (card && (!card.i || card.i === this.shown?.card.i)) return;
    this.leave();
    if (!card || (this.given.kinds.length > 0 && !this.given.kinds.includes(card.k))) return;
    const left = card.left ?? card.ms;
    if (left < LEAST_MS) return;
    const element = this.built(card);
    this.element.append(element);
    this.shown = { card, element };
    this.play(element, card.in ?? this.given.motion.in, this.given.motion.in_ms);
    this.timer = setTimeout(() => this.leave(), left - Math.min(this.given.motion.out_ms, left / 2));
  }

  built(card) {
    const said = card.w.map(([kind, text]) => make("bdi", kind === "text" ? "" : `alert-${kind}`, text));
    const box = plateOf("alert-text", make("p", "alert-words", make("span", "alert-row", ...said)));
    if (card.g && this.given.words.their_message === "shown") {
      const message = make("p", "alert-message", make("span", "alert-said alert-row", ...fragmentsOf(card.g, this.options)));
      message.dir = "auto";
      box.append(message);
    }
    const element = make("div", "alert", box);
    element.dataset.place = card.p;
    element.dataset.kind = card.k;
    if (card.held) element.dataset.held = card.held;
    element.style.setProperty("--apart", `${card.s / 100}em`);
    if (card.film) element.prepend(this.film(card));
    else if (card.f) element.prepend(this.picture(card.f));
    return element;
  }

  // Silent, until this page is the one that is heard.
  film({ i, film }) {
    const video = make("video", "alert-picture");
    Object.assign(video, { src: `/films/${film}.webm`, muted: true, playsInline: true, autoplay: true });
    video.dataset.alert = i;
    video.addEventListener("error", () => video.remove(), { once: true });
    return video;
  }

  picture(id) {
    const image = make("img", "alert-picture");
    Object.assign(image, { alt: "", src: largest(id), decoding: "async" });
    image.addEventListener("error", () => image.remove(), { once: true });
    return image;
  }

  play(element, frames, duration) {
    return frames.length > 0 && duration > 0 ? element.animate(frames, { duration, easing: this.given.motion.easing, fill: "both" }) : null;
  }

  // At once, and what is on its way out as well.
  off() {
    clearTimeout(this.timer);
    this.shown = null;
    for (const element of this.element.querySelectorAll(".alert")) element.remove();
  }

  leave() {
    clearTimeout(this.timer);
    const { element, card } = this.shown ?? {};
    this.shown = null;
    if (!element) return;
    const way = this.play(element, card.out ?? this.given.motion.out, this.given.motion.out_ms);
    if (way) way.onfinish = () => element.remove();
    else element.remove();
  }

  remove() {
    clearTimeout(this.timer);
    super.remove();
  }
}
