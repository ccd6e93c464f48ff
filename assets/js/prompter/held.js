// What is held, on top, with the time it has left; and what is pinned.
//
// Lines come and go several times a second, and a press means the line that stood there. So while the mouse is on the rows each stays where it
// is: one that is gone leaves its place to the next that comes, which can be pressed only once it has stood there for a moment.
import { button, make } from "../house/elements.js";
import { KeptRows } from "../house/kept_rows.js";
import { act, setup } from "./door.js";
import { nameOf, wordsOf } from "./row.js";
import { markOf } from "../link/marks.js";

const TICK_MS = 100;
// Below that tenths of a second count.
const EXACT_MS = 10000;
const MOST_SHOWN = 6;
const MOST_WAITS = 3;
// For so long after the mouse was last moved rows stay where they are.
const STEADY_MS = 3000;
// Nobody means what has not stood there for so long.
const MEANT_MS = 400;
const AROUND = 2 * Math.PI * 8;

const placeOf = ({ i }) => ({ i, gone: false });
const moreOf = (number) => make("p", "said held-more", `and ${number} more`);

export class Held {
  constructor(lines, pick) {
    this.lines = lines;
    this.pick = pick;
    this.box = document.querySelector("#held");
    this.pinned = document.querySelector("#pinned");
    this.held = [];
    this.rows = new KeptRows(this.box);
    this.pinnedRows = new KeptRows(this.pinned);
    // What stands where: ids, of those that are gone too.
    this.places = [];
    this.movedAt = Number.NEGATIVE_INFINITY;
    for (const type of ["pointerenter", "pointermove", "pointerdown"])
      this.box.addEventListener(type, () => {
        this.movedAt = performance.now();
      });
    this.box.addEventListener("pointerleave", () => this.loose());
    setInterval(() => {
      this.tick();
      this.fit();
    }, TICK_MS);
  }

  // The mouse has left, or has not moved for long: all stand in their order again.
  loose() {
    this.movedAt = Number.NEGATIVE_INFINITY;
    this.draw();
  }

  steady = () => performance.now() - this.movedAt < STEADY_MS;

  // held: [{i, waits, left, whole}], told now
  take(held) {
    const at = performance.now();
    this.held = held.map((one) => ({ ...one, at }));
    this.draw();
  }

  draw() {
    // The newest that wait for a person, then what goes soonest, then all others.
    const waits = this.held.filter((one) => one.waits).reverse();
    const timed = this.held.filter((one) => !one.waits).sort((one, other) => one.left - other.left);
    const sorted = [...waits.slice(0, MOST_WAITS), ...timed, ...waits.slice(MOST_WAITS)];
    const known = sorted.filter((one) => this.lines.byId.has(one.i));
    const steady = this.steady();
    this.places = steady ? this.inPlaces(known) : known.map(placeOf);
    this.places = this.places.filter((at) => this.lines.byId.has(at.i));
    this.box.hidden = this.places.length === 0;
    const shown = this.places.slice(0, MOST_SHOWN);
    const rows = shown.map((at) => this.rowAt(at, known));
    const more = this.places.length - shown.length;
    const none = this.box.childElementCount === 0;
    this.rows.show([...rows, ...(more > 0 ? [{ key: "more", told: more, draw: () => moreOf(more) }] : [])]);
    this.unfit = true;
    this.tick();
    if (none) this.fit();
  }

  // Whatever still is held stays in its place; others take the places of those that are gone, or follow.
  inPlaces(known) {
    const held = new Map(known.map((one) => [one.i, one]));
    const stood = new Set(this.places.map(({ i }) => i));
    const coming = known.filter((one) => !stood.has(one.i));
    const taken = (at) => {
      const next = coming.shift();
      return next ? { i: next.i, freshFrom: performance.now() } : { ...at, gone: true };
    };
    return [...this.places.map((at) => (held.has(at.i) ? { ...at, gone: false } : taken(at))), ...coming.map(placeOf)];
  }

  rowAt({ i, gone, freshFrom }, known) {
    const card = this.lines.byId.get(i);
    const one = known.find((held) => held.i === i) ?? { i };
    const fresh = freshFrom !== undefined && performance.now() - freshFrom < MEANT_MS;
    return { key: i, told: [card, one.waits, gone, fresh], draw: () => this.row(one, card, { gone, fresh }) };
  }

  // As high as whole rows are: the others are scrolled to, and how many there are is said over them. It takes a layout of the page, and is
  // not done for each that comes and goes; nor while it would move what is below the mouse. Narrower, as beside something that was opened,
  // rows are higher.
  fit() {
    const width = this.box.clientWidth;
    if ((!this.unfit && width === this.width) || this.steady()) return;
    this.unfit = false;
    this.width = width;
    const all = this.places.length;
    this.box.style.maxHeight = "";
    const room = this.box.clientHeight;
    if (this.box.scrollHeight <= room) return;
    this.box.querySelector(".held-more")?.remove();
    const hint = this.box.appendChild(moreOf(all));
    const ends = [...this.box.querySelectorAll(".held-row")].map((row) => row.offsetTop + row.offsetHeight - this.box.offsetTop);
    const whole = Math.max(1, ends.filter((end) => end + hint.offsetHeight <= room).length);
    hint.textContent = `and ${all - whole} more`;
    this.box.style.maxHeight = `${ends[whole - 1] + hint.offsetHeight + 1}px`;
  }

  row(one, card, { gone, fresh } = {}) {
    const ring = document.createElementNS("http://www.w3.org/2000/svg", "svg");
    ring.setAttribute("viewBox", "0 0 22 22");
    ring.setAttribute("class", "ring");
    ring.setAttribute("aria-hidden", "true");
    for (const name of ["whole", "left"]) {
      const circle = document.createElementNS("http://www.w3.org/2000/svg", "circle");
      circle.setAttribute("class", name);
      circle.setAttribute("cx", 11);
      circle.setAttribute("cy", 11);
      circle.setAttribute("r", 8);
      ring.append(circle);
    }
    const words = make("p", "", markOf(card.m), nameOf(card), " ", wordsOf(card));
    const when = make("small", "said");
    const row = make("div", `held-row${gone ? " gone" : ""}`, ring, make("div", "held-words", words, when));
    row.dataset.line = one.i;
    if (setup.acts) {
      const does = [
        button("Let go", null, () => act("let_go", { line: one.i }), one.waits ? "button" : "button plain"),
        button("Pull", null, () => act("pull", { line: one.i }, `Pulled ${card.n}’s line.`), "button plain"),
      ];
      for (const each of does) each.disabled = Boolean(gone || fresh);
      row.append(...does);
    }
    row.addEventListener("click", (event) => !event.target.closest("button") && this.pick(one.i));
    return row;
  }

  tick() {
    const now = performance.now();
    if (this.places.some((at) => at.gone) && !this.steady()) return this.draw();
    if (this.places.some((at) => now - at.freshFrom >= MEANT_MS)) return this.settle(now);
    for (const row of this.box.querySelectorAll(".held-row")) {
      const one = this.held.find((held) => held.i === Number(row.dataset.line));
      if (!one) {
        row.querySelector("small").textContent = "not held any more";
        continue;
      }
      const left = one.left === null ? null : Math.max(0, one.left - (performance.now() - one.at));
      const share = left === null || !one.whole ? 1 : left / one.whole;
      row.querySelector(".ring .left").style.strokeDasharray = `${share * AROUND} ${AROUND}`;
      const card = this.lines.byId.get(one.i);
      const by = one.waits ? `held by ${card?.rule ?? "a rule"}` : "";
      const when =
        left === null
          ? "no limit"
          : `${one.waits ? "leaves" : "goes on screen"} in ${left < EXACT_MS ? (left / 1000).toFixed(1) : Math.ceil(left / 1000)} s`;
      row.querySelector("small").textContent = [by, when].filter(Boolean).join(", ");
    }
  }

  // What has stood there for a moment may be pressed.
  settle(now) {
    for (const at of this.places) if (now - at.freshFrom >= MEANT_MS) delete at.freshFrom;
    this.draw();
  }

  pins(cards, large) {
    this.pinned.hidden = cards.length === 0;
    this.pinnedRows.show(cards.map((card) => ({ key: card.i, told: [card, card.i === large], draw: () => this.pin(card, large) })));
  }

  pin(card, large) {
    const row = make(
      "div",
      `held-row pin${card.i === large ? " large" : ""}`,
      make("div", "held-words", make("p", "", markOf(card.m), nameOf(card), " ", wordsOf(card))),
    );
    if (card.i === large) row.append(make("span", "chip off tag", "on the stage"));
    if (setup.acts) row.append(button("Unpin", null, () => act("unpin", { line: card.i }), "button plain"));
    row.addEventListener("click", (event) => !event.target.closest("button") && this.pick(card.i));
    return row;
  }
}
