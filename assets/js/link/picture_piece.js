// Pictures and films of the host's own.
import { Piece } from "./piece.js";

const FADE_MS = 600;
// The largest that is made of a picture.
const addressOf = (file) => `/pictures/${file}-4.webp`;

export class PicturePiece extends Piece {
  constructor(id, overrides) {
    super(id, "picture", overrides);
    this.index = 0;
  }

  style(given) {
    const before = JSON.stringify(this.given?.pictures);
    super.style(given);
    this.element.dataset.fit = given.fit;
    this.element.style.setProperty("--round", `${given.round}%`);
    if (before === JSON.stringify(given.pictures)) return;
    this.index = 0;
    this.draw(false);
  }

  get files() {
    return this.given.pictures.filter(({ file }) => file);
  }

  draw(fading) {
    clearTimeout(this.timer);
    const picture = this.files[this.index];
    const image = picture && document.createElement("img");
    if (image) {
      image.alt = "";
      image.src = addressOf(picture.file);
    }
    const old = [...this.element.children];
    if (image) this.element.append(image);
    if (image && fading) image.animate([{ opacity: 0 }, { opacity: 1 }], { duration: FADE_MS });
    setTimeout(() => old.map((one) => one.remove()), image && fading ? FADE_MS : 0);
    if (this.files.length > 1) this.timer = setTimeout(() => this.next(), picture.seconds * 1000);
  }

  next() {
    this.index = (this.index + 1) % this.files.length;
    this.draw(this.given.change === "fade");
  }
}

export class VideoPiece extends Piece {
  constructor(id, overrides) {
    super(id, "video", overrides);
  }

  style(given) {
    super.style(given);
    this.element.dataset.fit = given.fit;
    this.element.style.setProperty("--round", `${given.round}%`);
    if (given.film !== this.film) this.load(given.film);
    if (!this.video) return;
    this.video.loop = given.again;
    this.video.volume = given.loudness / 100;
    this.video.muted = given.loudness === 0 || this.overrides.silent;
  }

  load(film) {
    this.film = film;
    this.element.replaceChildren();
    this.video = film && document.createElement("video");
    if (!film) return;
    Object.assign(this.video, { autoplay: true, playsInline: true, muted: true, src: `/films/${film}.webm` });
    this.element.append(this.video);
  }
}
