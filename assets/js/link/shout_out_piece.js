// A fellow host's card: picture or clip, name, words, what they last showed, how many follow them.
import { make } from "../house/elements.js";
import { arrive, depart, filmOf, grouped, pictureOf } from "./coming.js";
import { fit, innerHeight } from "./fitting.js";
import { Piece, plateOf } from "./piece.js";

const LEAST_MS = 400;

export class ShoutOutPiece extends Piece {
  constructor(id, overrides) {
    super(id, "shout_out", overrides);
  }

  // card: as Ruby's ShoutOuts#card, or null once it is over; left: of its time, where it plays already
  shout(card) {
    if (card && card.i === this.shown?.id) return;
    this.leave();
    if (!card) return;
    const left = card.left ?? card.ms;
    if (left < LEAST_MS) return;
    const element = this.built(card);
    this.element.append(element);
    this.shown = { id: card.i, element };
    this.fit();
    const { motion } = this.given;
    arrive(element, motion);
    this.timer = setTimeout(() => this.leave(), left - Math.min(motion.out_ms, left / 2));
  }

  style(given) {
    super.style(given);
    this.fit();
  }

  fit() {
    const { element } = this.shown ?? {};
    const about = element?.querySelector(".shout-about");
    if (about) fit(about, () => about.offsetHeight > innerHeight(element));
  }

  built(card) {
    const { given } = this;
    const text = (name, words) => (words ? make("bdi", `text ${name}`, words) : null);
    const about = make(
      "div",
      "shout-about",
      text("shout-title", given.title),
      make("bdi", "shout-name", card.n),
      text("shout-words", card.w),
      given.last_shown === "shown" ? text("shout-last", card.s) : null,
      given.followers === "shown" && card.c !== null ? text("shout-followers", `${grouped(card.c)} follow`) : null,
    );
    return plateOf("shout", this.seen(card), about);
  }

  seen(card) {
    const { clip, picture } = this.given;
    const film = card.clips[clip === "any" ? card.r : 0];
    if (clip !== "none" && film) return filmOf("shout-seen", film, card.i, true);
    return picture === "shown" && card.p ? pictureOf("shout-seen", card.p) : null;
  }

  leave() {
    clearTimeout(this.timer);
    const { element } = this.shown ?? {};
    this.shown = null;
    if (element) depart(element, this.given.motion);
  }

  remove() {
    clearTimeout(this.timer);
    super.remove();
  }
}
