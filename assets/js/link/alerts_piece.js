// Cues as they play: words with a picture, coming and going by the piece's own motion.
import { make } from "../house/elements.js";
import { arrive, depart, filmOf, pictureOf } from "./coming.js";
import { fit, innerHeight } from "./fitting.js";
import { fragmentsOf } from "./line.js";
import { Piece, plateOf } from "./piece.js";

// What is nearly over is not begun.
const LEAST_MS = 400;

const PARTS = { picture: ".alert-picture", words: ".alert-words", message: ".alert-message" };

// Where it moves in no way, it is there or not.
function shownBy(frames, going = false) {
  if (frames.length > 0) return frames;
  return going ? [{ opacity: 1 }, { opacity: 0 }] : [{ opacity: 0 }, { opacity: 1 }];
}

export class AlertsPiece extends Piece {
  constructor(id, overrides) {
    super(id, "alerts", overrides);
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
    this.fit();
    arrive(element, this.given.motion, card.in);
    this.time(card, left);
    if (card.u) this.takeApart(element, card, left);
    this.timer = setTimeout(() => this.leave(), left - Math.min(this.given.motion.out_ms, left / 2));
  }

  // What few cues want is not loaded before one does; until it is here, its words wait for it.
  async takeApart(element, { u, t, ms, in: coming }, left) {
    const words = element.querySelector(".alert-words");
    words.style.visibility = "hidden";
    const { move } = await import("./letters.js").catch(() => ({}));
    words.style.visibility = "";
    const { motion } = this.given;
    move?.(words, u, { ...motion, in: coming ?? motion.in }, { begins: t?.words?.[0] ?? 0, elapsed: ms - left });
  }

  // Parts that do not stand as long as the whole. left: of the card's time
  time({ t: times = {}, ms, in: coming, out: going }, left) {
    const { motion } = this.given;
    for (const [part, [begins, ends]] of Object.entries(times)) {
      const frames = { in: coming ?? motion.in, out: going ?? motion.out };
      for (const element of this.shown.element.querySelectorAll(PARTS[part])) {
        const animations = [];
        if (begins > 0)
          animations.push(
            element.animate(shownBy(frames.in), { delay: begins, duration: motion.in_ms || 1, easing: motion.easing, fill: "both" }),
          );
        if (ends < ms) {
          const duration = Math.min(motion.out_ms || 1, ends - begins);
          animations.push(
            element.animate(shownBy(frames.out, true), { delay: ends - duration, duration, easing: motion.easing, fill: "forwards" }),
          );
        }
        for (const one of animations) one.currentTime = ms - left;
      }
    }
  }

  style(given) {
    super.style(given);
    this.options = { height: Number.parseFloat(given.css["--text-size"]) };
    this.fit();
  }

  fit() {
    const { element } = this.shown ?? {};
    const box = element?.querySelector(".alert-text");
    if (box) fit(box, () => box.offsetHeight > innerHeight(element) || box.scrollWidth > box.offsetWidth);
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
    for (const [name, value] of Object.entries(card.y ?? {})) element.style.setProperty(name, value);
    element.style.setProperty("--apart", `${card.s / 100}em`);
    if (card.film) element.prepend(filmOf("alert-picture", card.film, card.i));
    else if (card.f) element.prepend(pictureOf("alert-picture", card.f));
    return element;
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
    if (element) depart(element, this.given.motion, card.out);
  }

  remove() {
    clearTimeout(this.timer);
    super.remove();
  }
}
