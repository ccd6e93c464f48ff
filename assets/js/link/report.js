// What a screen says of itself: the size it is drawn at, its revision, its frame rate, whether it is hidden.
import { installed } from "./installed.js";

const EVERY_MS = 5000;
// Counting frames keeps a page awake, so it is done now and then.
const MEASURE_EVERY_MS = 30000;
const MEASURE_MS = 1000;
// What was painted is told soon, but not line by line.
const SOON_MS = 500;
const MOST_PAINTED = 200;

export class Report {
  constructor(socket, picture, notUnderstood) {
    this.socket = socket;
    this.picture = picture;
    this.notUnderstood = notUnderstood;
    this.rate = null;
    this.painted = [];
    addEventListener("resize", () => this.tell());
    document.addEventListener("visibilitychange", () => this.tell());
    setInterval(() => this.tell(), EVERY_MS);
    setInterval(() => this.measure(), MEASURE_EVERY_MS);
    this.measure();
  }

  measure() {
    if (document.hidden) return this.tell();
    let from = null;
    let frames = 0;
    const count = (now) => {
      from ??= now;
      if (now - from < MEASURE_MS) {
        frames += 1;
        return requestAnimationFrame(count);
      }
      this.rate = (frames * 1000) / (now - from);
      this.tell();
    };
    requestAnimationFrame(count);
  }

  // A line was put on the page; it is painted with the next frame.
  paint(id) {
    if (this.painted.length === MOST_PAINTED) this.painted.shift();
    requestAnimationFrame(() => this.painted.push([id, performance.now()]));
    this.soon ??= setTimeout(() => this.tell(), SOON_MS);
  }

  // A sound that this page was chosen for could not be played.
  silent(id) {
    this.dumb = id;
    this.tell();
    this.dumb = undefined;
  }

  tell() {
    clearTimeout(this.soon);
    this.soon = undefined;
    const now = performance.now();
    const painted = this.painted.splice(0).map(([id, at]) => [id, Math.round(now - at)]);
    this.socket.send({
      w: Math.round(innerWidth * devicePixelRatio),
      h: Math.round(innerHeight * devicePixelRatio),
      fps: this.rate,
      rev: this.picture.revision,
      hidden: document.hidden,
      not: this.notUnderstood,
      side: this.picture.side || null,
      painted,
      silent: this.dumb,
      missing: this.picture.installed().filter((name) => !installed(name)),
    });
  }
}
