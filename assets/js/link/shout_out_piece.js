// A fellow host's card: picture or clip, name, words, what they last showed, how many follow them.
import { make } from "../house/elements.js";
import { Piece, plateOf } from "./piece.js";

const LEAST_MS = 400;
const written = (number) => String(number).replace(/\B(?=(\d{3})+(?!\d))/g, " ");

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
    const { motion } = this.given;
    if (motion.in.length > 0) element.animate(motion.in, { duration: motion.in_ms, easing: motion.easing, fill: "both" });
    this.timer = setTimeout(() => this.leave(), left - Math.min(motion.out_ms, left / 2));
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
      given.followers === "shown" && card.c !== null ? text("shout-followers", `${written(card.c)} follow`) : null,
    );
    return plateOf("shout", this.seen(card), about);
  }

  seen(card) {
    const { clip, picture } = this.given;
    const film = card.clips[clip === "any" ? card.r : 0];
    if (clip !== "none" && film) {
      const video = make("video", "shout-seen");
      Object.assign(video, { src: `/films/${film}.webm`, muted: true, playsInline: true, autoplay: true, loop: true });
      video.dataset.alert = card.i;
      video.addEventListener("error", () => video.remove(), { once: true });
      return video;
    }
    if (picture !== "shown" || !card.p) return null;
    const image = make("img", "shout-seen");
    Object.assign(image, { alt: "", src: `/pictures/${card.p}-4.webp`, decoding: "async" });
    image.addEventListener("error", () => image.remove(), { once: true });
    return image;
  }

  leave() {
    clearTimeout(this.timer);
    const { element } = this.shown ?? {};
    this.shown = null;
    if (!element) return;
    const { motion } = this.given;
    const way = motion.out.length > 0 && element.animate(motion.out, { duration: motion.out_ms, easing: motion.easing, fill: "both" });
    if (way) way.onfinish = () => element.remove();
    else element.remove();
  }

  remove() {
    clearTimeout(this.timer);
    super.remove();
  }
}
