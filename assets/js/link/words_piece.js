// Pieces that show words: text, clocks, now lines.
import { Piece, plateOf } from "./piece.js";

class WordsPiece extends Piece {
  constructor(id, kind, overrides) {
    super(id, kind, overrides);
    this.text = document.createElement("span");
    this.text.className = "text";
    this.text.dir = "auto";
    this.box = plateOf("", this.text);
    this.element.append(this.box);
  }
}

export class TextPiece extends WordsPiece {
  constructor(id, overrides) {
    super(id, "text-piece", overrides);
  }

  style(given) {
    super.style(given);
    this.text.textContent = given.content;
  }
}

export class CounterPiece extends WordsPiece {
  constructor(id, overrides) {
    super(id, "counter", overrides);
  }

  style(given) {
    super.style(given);
    this.draw();
  }

  live({ count }) {
    this.count = count;
    this.draw();
  }

  draw() {
    if (this.count === undefined) return;
    const words = this.given.content.includes("{count}") ? this.given.content : `${this.given.content} {count}`;
    this.text.textContent = words.replaceAll("{count}", String(this.count));
  }
}

const two = (number) => String(number).padStart(2, "0");

export class ClockPiece extends WordsPiece {
  constructor(id, overrides) {
    super(id, "clock", overrides);
    this.ticking = setInterval(() => this.draw(), 250);
  }

  remove() {
    clearInterval(this.ticking);
    super.remove();
  }

  style(given) {
    super.style(given);
    this.draw();
  }

  // Counts from what it was told, by how long ago that was.
  live({ value_ms: value, goes }) {
    this.told = { value, goes, at: performance.now() };
    this.draw();
  }

  draw() {
    if (!this.told) return;
    const passed = performance.now() - this.told.at;
    const ms = { up: this.told.value + passed, down: Math.max(0, this.told.value - passed), stands: this.told.value }[this.told.goes];
    const over = this.told.goes === "down" && ms === 0 && this.given.after;
    const words = over ? this.given.after : [this.given.before, this.written(ms)].filter(Boolean).join(" ");
    if (this.text.textContent !== words) this.text.textContent = words;
  }

  // What is left is rounded up, so that it ends with 0:00.
  written(ms) {
    const seconds = Math[this.told.goes === "down" ? "ceil" : "floor"](ms / 1000);
    const parts = [Math.floor(seconds / 3600) % 24, Math.floor(seconds / 60) % 60, seconds % 60];
    if (this.given.clock === "time") return (this.given.clock_form === "minutes" ? parts.slice(0, 2) : parts).map(two).join(":");
    const [hours, minutes, rest] = parts;
    return hours > 0 ? `${hours}:${two(minutes)}:${two(rest)}` : `${minutes}:${two(rest)}`;
  }
}

// However long a line is, it is not made smaller than this.
const SMALLEST_RATIO = 0.3;
const TURNS = {
  fade: [{ opacity: 0 }, { opacity: 1 }],
  rise: [
    { opacity: 0, transform: "translateY(0.6em)" },
    { opacity: 1, transform: "none" },
  ],
};

export class NowLinePiece extends WordsPiece {
  constructor(id, overrides) {
    super(id, "now-line", overrides);
    this.lines = [];
    this.index = 0;
  }

  remove() {
    clearInterval(this.timer);
    super.remove();
  }

  style(given) {
    super.style(given);
    this.begin();
  }

  live({ lines }) {
    if (lines.join("\n") === this.lines.join("\n")) return;
    this.lines = lines;
    this.index = 0;
    this.begin();
  }

  begin() {
    clearInterval(this.timer);
    this.draw();
    if (this.lines.length > 1) this.timer = setInterval(() => this.next(), this.given.seconds * 1000);
  }

  next() {
    this.index = (this.index + 1) % this.lines.length;
    this.draw();
    const turn = TURNS[this.given.words.turn];
    if (turn) this.text.animate(turn, { duration: 320, easing: "ease-out" });
  }

  draw() {
    this.text.textContent = this.lines[this.index] ?? "";
    this.element.classList.toggle("empty", this.text.textContent === "");
    this.fit();
  }

  // To the room that is left between the plate's sides.
  fit() {
    this.text.style.fontSize = "";
    if (this.given?.words.too_long !== "smaller") return;
    const sides = ["paddingLeft", "paddingRight", "borderLeftWidth", "borderRightWidth"];
    const styles = [this.element, this.box].map((element) => getComputedStyle(element));
    const around = styles.flatMap((style) => sides.map((side) => Number.parseFloat(style[side]) || 0)).reduce((sum, px) => sum + px, 0);
    const ratio = (this.element.clientWidth - around) / this.text.offsetWidth;
    if (ratio < 1) this.text.style.fontSize = `${Math.max(SMALLEST_RATIO, ratio * 0.99)}em`;
  }
}
