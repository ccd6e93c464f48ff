// A cue as a score: a row for each of its parts, which begins and ends somewhere; dragged, moved by keys, and played.
import { button, icon, make, svg } from "../house/elements.js";

const PARTS = {
  picture: ["image", "Picture"],
  words: ["type", "Words"],
  message: ["message-square-text", "Message"],
  sound: ["volume-2", "Sound"],
  aloud: ["audio-lines", "Read aloud"],
  flurry: ["wind", "Emotes"],
  adds: ["flag", "Adds"],
};
// What can be moved, and of what the end can be moved.
const BEGINS = ["picture", "words", "message", "sound", "flurry"];
const ENDS = ["picture", "words", "message"];
const STEP_S = 0.1;
const LEAST_S = 0.1;
const AFTER = 1.04;
const round = (seconds) => Math.round(seconds * 10) / 10;
const said = (seconds) => `${round(seconds)} s`;

export class Score {
  // set(values, id): what is set of a cue; play(): it is to be shown from its beginning; trial(): in the drafts; another(): as somebody else
  constructor(root, { set, play, trial, another }) {
    Object.assign(this, { root, set, playIt: play, waiting: new Map() });
    this.time = make("span", "figure score-time");
    this.as = make("bdi", "said score-as");
    this.rows = make("div", "score-rows");
    this.head = make(
      "div",
      "score-head",
      button("Try it", "play", () => this.play(), "button do"),
      button("In the drafts", "frame", trial),
      this.time,
      button("Another", "refresh-cw", another, "button plain push"),
      this.as,
    );
    this.needle = make("i", "score-needle");
    root.replaceChildren(this.head, this.rows);
  }

  // rows: [part, begins, ends] in milliseconds, the end null where nobody knows; look: how it comes and goes, what it says
  show(cue, rows, look) {
    if (this.cue && this.cue.id !== cue.id) this.leave(this.cue.id);
    Object.assign(this, { cue, told: rows, look });
    const last = Math.max(cue.length_s * 1000, ...rows.map(([, begins, ends]) => ends ?? begins + 1000));
    this.lastMs = last * AFTER;
    this.time.textContent = said(cue.length_s);
    this.as.textContent = look.as ? `as ${look.as}` : "";
    const focused = document.activeElement?.dataset?.part;
    this.rows.replaceChildren(...rows.map((row) => this.row(row)), this.axis(), this.needle);
    if (focused) this.rows.querySelector(`[data-part="${focused}"]`)?.focus();
  }

  // Another cue is shown: what was not sent of this one yet is sent.
  leave(id) {
    for (const { unsent } of this.waiting.values()) if (unsent) this.set(unsent, id);
    this.waiting.clear();
  }

  share(ms) {
    return `${(ms / this.lastMs) * 100}%`;
  }

  // What is on its way counts already: whoever presses a key ten times means ten.
  row([part, ...span]) {
    const [begins, ends] = this.waiting.get(part)?.span ?? span;
    const [drawing, label] = PARTS[part];
    const track = make("div", "score-track", this.bar(part, begins, ends));
    return make("div", "score-row", make("span", "score-label", icon(drawing), label), track);
  }

  bar(part, begins, ends) {
    const words = this.look.says[part] ?? "";
    const bar = BEGINS.includes(part) ? button(words, null, () => {}, "score-bar") : make("span", "score-bar", words);
    bar.dataset.part = part;
    bar.classList.toggle("open", ends === null);
    const until = ends ?? this.lastMs;
    bar.style.left = this.share(begins);
    bar.style.width = this.share(until - begins);
    if (part === "sound" && this.look.peaks) bar.replaceChildren(wave(this.look.peaks));
    if (!BEGINS.includes(part)) return bar;
    if (ENDS.includes(part)) {
      const share = (ms) => `${Math.min(50, (ms / (until - begins)) * 100)}%`;
      bar.style.setProperty("--in", share(this.look.in_ms));
      bar.style.setProperty("--out", share(this.look.out_ms));
      bar.append(make("i", "score-end"));
    }
    const [, label] = PARTS[part];
    const can = ENDS.includes(part) ? "Arrows move it, with Shift its end." : "Arrows move it.";
    bar.setAttribute(
      "aria-label",
      `${words ? `${label}: ${words}` : label}, from ${said(begins / 1000)}${ends === null ? "" : ` to ${said(ends / 1000)}`}. ${can}`,
    );
    bar.addEventListener("keydown", (event) => this.key(event, part, begins / 1000, ends / 1000));
    bar.addEventListener("pointerdown", (event) => this.drag(event, bar, part, begins / 1000, ends / 1000));
    return bar;
  }

  key(event, part, begins, ends) {
    const by = { ArrowLeft: -STEP_S, ArrowRight: STEP_S }[event.key];
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    if (event.shiftKey) this.move(part, begins, ends, 0, by);
    else this.move(part, begins, ends, by, by);
  }

  // What is moved as a whole keeps its length, where it does not stand to the end anyway.
  move(part, begins, ends, from, to) {
    const { length_s: length } = this.cue;
    const values = {};
    const begin = Math.min(Math.max(0, round(begins + from)), length - LEAST_S);
    if (from !== 0) values[`${part}_begins_s`] = begin;
    if (ENDS.includes(part) && (from === 0 || round(ends) < length)) {
      const end = Math.min(length, Math.max(begin + LEAST_S, round(ends + to)));
      values[`${part}_ends_s`] = round(end) >= length ? 0 : round(end);
    }
    return this.send(part, values, begins, ends);
  }

  async send(part, values, begins, ends) {
    const { length_s: length } = this.cue;
    const end = values[`${part}_ends_s`];
    const span = [values[`${part}_begins_s`] ?? begins, end === undefined ? ends : end || length].map((seconds) => seconds * 1000);
    const waits = this.waiting.get(part);
    const unsent = { ...waits?.unsent, ...values };
    this.waiting.set(part, { span, unsent });
    this.show(this.cue, this.told, this.look);
    // One after the other, and only what came last: answers to several at once need not come in their order.
    if (!waits) await this.sendAll(part);
  }

  async sendAll(part) {
    for (let waits = this.waiting.get(part); waits?.unsent; waits = this.waiting.get(part)) {
      const { unsent } = waits;
      waits.unsent = null;
      await this.set(unsent, this.cue.id);
    }
    this.waiting.delete(part);
    this.show(this.cue, this.told, this.look);
  }

  drag(event, bar, part, begins, ends) {
    if (event.button !== 0) return;
    const ending = event.target.classList.contains("score-end");
    const track = bar.parentElement.getBoundingClientRect();
    const seconds = (move) => ((move.clientX - event.clientX) / track.width) * (this.lastMs / 1000);
    const shift = (by) => {
      if (!ending) bar.style.left = this.share((begins + by) * 1000);
      else bar.style.width = this.share(Math.max(LEAST_S, ends + by - begins) * 1000);
    };
    bar.setPointerCapture?.(event.pointerId);
    const moved = (move) => shift(Math.max(ending ? -Infinity : -begins, seconds(move)));
    const done = (up) => {
      bar.removeEventListener("pointermove", moved);
      bar.removeEventListener("pointerup", done);
      bar.removeEventListener("pointercancel", done);
      const by = up.type === "pointerup" ? round(seconds(up)) : 0;
      if (by === 0) return this.show(this.cue, this.told, this.look);
      this.move(part, begins, ends, ending ? 0 : by, by);
    };
    bar.addEventListener("pointermove", moved);
    bar.addEventListener("pointerup", done);
    bar.addEventListener("pointercancel", done);
  }

  axis() {
    const step = [1, 2, 5, 10, 20].find((seconds) => this.lastMs / 1000 / seconds <= 9) ?? 60;
    const marks = [];
    for (let at = 0; at * 1000 <= this.lastMs * 0.95; at += step) {
      const mark = make("span", "figure", `${at} s`);
      mark.style.left = this.share(at * 1000);
      marks.push(mark);
    }
    return make("div", "score-row score-axis", make("span"), make("div", "score-track", ...marks));
  }

  // A line runs through it while it plays.
  play() {
    const length = this.cue.length_s * 1000;
    this.playIt();
    clearInterval(this.ticking);
    this.needle.getAnimations?.().map((one) => one.cancel());
    const began = performance.now();
    this.needle.animate?.(
      [
        { opacity: 1, left: "var(--score-label)" },
        { opacity: 1, left: `calc(var(--score-label) + (100% - var(--score-label)) * ${length / this.lastMs})` },
      ],
      {
        duration: length,
      },
    );
    this.ticking = setInterval(() => {
      const passed = performance.now() - began;
      this.time.textContent = passed < length ? `${(passed / 1000).toFixed(1)} s of ${said(this.cue.length_s)}` : said(this.cue.length_s);
      if (passed >= length) clearInterval(this.ticking);
    }, 100);
  }

  clear() {
    clearInterval(this.ticking);
    this.rows.replaceChildren();
    this.time.textContent = "";
  }
}

function wave(peaks) {
  const drawn = svg("svg", { class: "wave", viewBox: `0 0 ${peaks.length * 3} 20`, preserveAspectRatio: "none", "aria-hidden": "true" });
  const most = Math.max(1, ...peaks);
  drawn.append(
    ...peaks.map((peak, at) => {
      const height = Math.max(1, (peak / most) * 20);
      return svg("rect", { x: at * 3, y: (20 - height) / 2, width: 2, height });
    }),
  );
  return drawn;
}
