// One chat piece: its lines, newest first in the document.
import { redress } from "./dress.js";
import { lineOf, recolour } from "./line.js";
import { comeIn, goOut, makeRoom, places } from "./motion.js";
import { Piece } from "./piece.js";
import { Ticker } from "./ticker.js";

// An emote alone stands this much higher.
const ALONE_RATIO = 1.6;
const AGE_EVERY_MS = 5000;
// The server says when a line leaves; where it is not heard so long after that, the line leaves by itself.
const WAITS_MS = 250;

export class ChatPiece extends Piece {
  constructor(id, overrides) {
    super(id, "chat", overrides);
    this.lines = new Map();
    this.cards = new Map();
    this.ends = new Map();
    this.odd = false;
    this.stack = document.createElement("div");
    this.stack.className = "stack";
    this.element.append(this.stack);
  }

  style(given) {
    const before = this.given;
    super.style(given);
    // How long lines stand may be set otherwise.
    for (const id of [...this.ends.keys()]) this.endByLink(id);
    if (this.overrides.newest) this.element.dataset.newest = this.overrides.newest;
    this.element.dataset.oneName = Boolean(this.overrides.oneName);
    Object.assign(this.element.dataset, this.overrides.parts);
    this.motion = given.motion;
    const size = Number.parseFloat(this.overrides.css["--text-size"] || given.css["--text-size"]);
    const height = size * Number.parseFloat(given.css["--emote-size"]) * (given.emotes_alone === "larger" ? ALONE_RATIO : 1);
    const still = given.emote_motion === "still";
    const old = this.options;
    this.options = { height, still, parts: given.parts, place: given.words.name_place, markup: given.markup };
    if (old && (old.height !== height || old.still !== still)) redress(this.element, this.options);
    if (before && built(before) !== built(given)) this.rebuild();
    this.flow(given);
    this.count(given.time_form === "age" && given.words.times === "shown");
  }

  // Whether lines run by or stand.
  flow({ words, ticker_speed: speed }) {
    const runs = words.flow === "ticker";
    if (runs && this.ticker) this.ticker.speed = speed;
    if (runs === Boolean(this.ticker)) return;
    this.ticker = runs ? new Ticker(this.stack, speed) : null;
    if (!runs) for (const line of this.stack.children) for (const way of line.getAnimations()) way.cancel();
    else for (const line of [...this.stack.children].reverse()) this.run(line);
  }

  run(line) {
    this.ticker.run(line, () => {
      line.hidden = true;
    });
  }

  // All that changes within one frame: others make room once.
  change({ out = [], pulled = [], in: cards = [] }, { lively, arriving, now, age }) {
    this.now = [now, performance.now()];
    for (const id of pulled) this.take(id);
    const before = this.ticker || !arriving ? new Map() : places(this.lines.values());
    for (const id of out) this.leave(id, arriving ? lively : 0);
    for (const card of cards) this.add(card, arriving, lively, age);
    this.thin(arriving ? lively : 0);
    if (before.size > 0 && (out.length > 0 || cards.length > 0)) makeRoom(before, this.motion, lively);
  }

  add(card, arriving, lively = 1, age = 0) {
    if (this.lines.has(card.i)) return;
    if (this.stands(card, arriving, age) <= 0) return;
    this.end(card, arriving, age);
    const line = lineOf(this.coloured(card), this.options);
    this.odd = !this.odd;
    line.classList.toggle("odd", this.odd);
    this.lines.set(card.i, line);
    this.cards.set(card.i, card);
    this.painted?.(card.i);
    this.stack.insertBefore(line, this.olderThan(card));
    if (this.counting) this.showAge(line, card);
    if (this.ticker) this.run(line);
    else if (arriving) comeIn(line, this.motion, lively);
  }

  // Where it leaves by its time alone.
  end(card, arriving = true, age = 0) {
    this.endless(card.i);
    const { z: stands = Number.POSITIVE_INFINITY } = card;
    const left = Math.min(stands - age + WAITS_MS, this.stands(card, arriving, age));
    if (Number.isFinite(left))
      this.ends.set(
        card.i,
        setTimeout(() => this.over(card.i), left),
      );
  }

  // How long it may still stand by this link's own word. age: how long ago that was said
  stands({ t: time }, arriving, age) {
    const { staysMs = Number.POSITIVE_INFINITY } = this.overrides;
    if (arriving || !this.now?.[0]) return staysMs - age;
    return staysMs - (this.now[0] - time + performance.now() - this.now[1]);
  }

  // What the link says counts whatever else is set.
  endByLink(id) {
    this.end({ ...this.cards.get(id), i: id, z: undefined }, false);
  }

  // No more of them than this link asks for; the oldest go first.
  thin(lively) {
    const { lines: most } = this.overrides;
    if (!most) return;
    const there = [...this.stack.children].filter((line) => !line.classList.contains("leaving") && !line.hidden);
    for (const line of there.slice(most)) this.leave(Number(line.dataset.line), lively);
  }

  over(id) {
    const lively = document.hidden ? 0 : 1;
    const before = this.ticker || !lively ? new Map() : places(this.lines.values());
    this.leave(id, lively);
    if (before.size > 0) makeRoom(before, this.motion, lively);
  }

  endless(id) {
    clearTimeout(this.ends.get(id));
    this.ends.delete(id);
  }

  coloured(card) {
    return this.otherForm && card.d ? { ...card, c: card.d } : card;
  }

  // The first line that was said before this one; what is told again from history finds its place.
  olderThan(card) {
    for (const line of this.stack.children) {
      if (line.classList.contains("leaving")) continue;
      const time = Number(line.dataset.time);
      if (time < card.t || (time === card.t && Number(line.dataset.line) < card.i)) return line;
    }
    return null;
  }

  // The same line, drawn anew where it stands.
  again(card) {
    const old = this.lines.get(card.i);
    if (!old) return;
    const line = lineOf(this.coloured(card), this.options);
    line.classList.toggle("odd", old.classList.contains("odd"));
    this.lines.set(card.i, line);
    this.cards.set(card.i, card);
    old.replaceWith(line);
    if (this.ticker) this.run(line);
  }

  rebuild() {
    for (const card of this.cards.values()) this.again(card);
  }

  take(id) {
    this.lines.get(id)?.remove();
    this.forget(id);
  }

  leave(id, lively) {
    const line = this.lines.get(id);
    if (line && this.ticker) this.finishRun(line);
    else if (line) goOut(line, this.motion, lively);
    this.forget(id);
  }

  // What is running by still runs out of sight.
  finishRun(line) {
    const [way] = line.getAnimations();
    if (!way || line.hidden) return line.remove();
    way.onfinish = () => line.remove();
  }

  forget(id) {
    this.endless(id);
    this.lines.delete(id);
    this.cards.delete(id);
  }

  recolour(id, colour, other) {
    const line = this.lines.get(id);
    if (line) recolour(line, this.otherForm && other ? other : colour);
    const card = this.cards.get(id);
    if (card) Object.assign(card, { c: colour, d: other });
  }

  // Leaves what stands already where it is, so that nothing is shown twice.
  replace(cards, now, age) {
    this.now = [now, performance.now()];
    const stay = new Set(cards.map((card) => card.i));
    for (const id of [...this.lines.keys()]) if (!stay.has(id)) this.take(id);
    for (const card of cards) {
      this.add(card, false, 1, age);
      if (!this.lines.has(card.i)) continue;
      this.end(card, false, age);
      this.recolour(card.i, card.c, card.d);
    }
    this.thin(0);
  }

  // Times as age are counted here, by how long ago the line came.
  count(wanted) {
    if (wanted === Boolean(this.counting)) return;
    clearInterval(this.counting);
    this.counting = wanted && setInterval(() => this.showAges(), AGE_EVERY_MS);
    if (wanted) this.showAges();
    else this.rebuild();
  }

  remove() {
    clearInterval(this.counting);
    for (const id of [...this.ends.keys()]) this.endless(id);
    super.remove();
  }

  showAges() {
    for (const [id, line] of this.lines) this.showAge(line, this.cards.get(id));
  }

  showAge(line, card) {
    const time = line.querySelector(".time");
    if (!time || !this.now?.[0]) return;
    const seconds = Math.max(0, (this.now[0] - card.t + performance.now() - this.now[1]) / 1000);
    time.textContent = seconds < 60 ? `${Math.floor(seconds / 5) * 5} s` : `${Math.floor(seconds / 60)} min`;
  }
}

// What decides on how lines are put together.
const built = ({ parts, words, markup }) => JSON.stringify([parts, words.name_place, markup]);
