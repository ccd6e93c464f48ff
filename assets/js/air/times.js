// How long lines took to a screen, as bars.
import { svg } from "../house/elements.js";
import { get, Refused } from "../house/send.js";
import { count } from "../house/words.js";

const EVERY_MS = 5000;
const WIDE = 800;
const HIGH = 112;
const FOOT = 150;
const LABELS = 4;
// Of the drawing, where a label would run out of it at the right.
const LATE = 0.72;

const seconds = (ms) => (ms < 1000 ? `${ms} ms` : `${Number((ms / 1000).toFixed(1))} s`);

// What is said of them beside the drawing.
export function wordsOf({ lines, half_ms: half, most_ms: most, beyond }) {
  if (lines === 0) return "Waiting for a line that a screen paints.";
  const later = beyond > 0 ? ` ${count(beyond, "line")} took longer than is drawn here.` : "";
  return `${count(lines, "line")}: half within ${seconds(half)}, 99 in 100 within ${seconds(most)}.${later}`;
}

export const leftOut = (ms) => (ms > 0 ? `last 10 minutes, ${seconds(ms)} of hold left out` : "last 10 minutes");

function bar(times, at, { bars, most }) {
  const wide = WIDE / bars;
  const high = (times / most) * HIGH;
  return svg("rect", { x: at * wide + 1, y: FOOT - 32 - high, width: wide - 2, height: high, rx: 1.5, class: "bars-bar" });
}

function line(ms, words, whole, row) {
  const x = (ms / whole) * WIDE;
  const late = ms / whole > LATE;
  const text = svg("text", { x: late ? x - 6 : x + 6, y: 12 + row * 16, "text-anchor": late ? "end" : "start", class: "bars-mark" });
  text.textContent = words;
  return [svg("line", { x1: x, x2: x, y1: 2, y2: FOOT - 32, class: "bars-line" }), text];
}

function label(ms, whole) {
  const text = svg("text", { x: (ms / whole) * WIDE, y: FOOT - 12, "text-anchor": ms === 0 ? "start" : "middle", class: "bars-label" });
  text.textContent = ms === 0 ? "0 ms" : seconds(ms);
  return text;
}

export function drawn({ bars, step_ms: step, half_ms: half, most_ms: most }) {
  const whole = bars.length * step;
  const highest = Math.max(...bars, 1);
  return [
    ...bars.flatMap((times, at) => (times > 0 ? [bar(times, at, { bars: bars.length, most: highest })] : [])),
    svg("line", { x1: 0, x2: WIDE, y1: FOOT - 32, y2: FOOT - 32, class: "bars-foot" }),
    ...Array.from({ length: LABELS }, (_, at) => label((at * whole) / LABELS, whole)),
    ...line(half, `half within ${seconds(half)}`, whole, 0),
    ...line(most, `99 in 100 within ${seconds(most)}`, whole, 1),
  ];
}

export class Times {
  constructor(box) {
    this.said = box.querySelector("#times-said");
    this.of = box.querySelector("#times-of");
    this.drawing = box.querySelector("#times-drawn");
  }

  follow() {
    this.ask();
    setInterval(() => document.hidden || this.ask(), EVERY_MS);
  }

  // Whoever cannot ask just now asks again; what stands there was so.
  async ask() {
    try {
      this.show(await get("/links/times"));
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
    }
  }

  show(told) {
    this.said.textContent = wordsOf(told);
    this.of.textContent = leftOut(told.hold_ms);
    this.drawing.toggleAttribute("hidden", told.lines === 0);
    this.drawing.replaceChildren(...(told.lines === 0 ? [] : drawn(told)));
  }
}
