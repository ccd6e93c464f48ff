// What is held, on top, with the time it has left; and what is pinned.
import { button, make } from "../house/elements.js";
import { act, setup } from "./door.js";
import { nameOf, wordsOf } from "./row.js";
import { markOf } from "../link/marks.js";

const TICK_MS = 100;
// Below that tenths of a second count.
const EXACT_MS = 10000;
const MOST_SHOWN = 6;
const MOST_WAITS = 3;
const AROUND = 2 * Math.PI * 8;

const moreOf = (number) => make("p", "said held-more", `and ${number} more`);

export class Held {
  constructor(lines, pick) {
    this.lines = lines;
    this.pick = pick;
    this.box = document.querySelector("#held");
    this.pinned = document.querySelector("#pinned");
    this.held = [];
    setInterval(() => this.tick(), TICK_MS);
  }

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
    const known = sorted.map((one) => [one, this.lines.byId.get(one.i)]).filter(([, card]) => card);
    this.box.hidden = known.length === 0;
    const rows = known.slice(0, MOST_SHOWN).map(([one, card]) => this.row(one, card));
    const more = known.length - rows.length;
    this.box.replaceChildren(...rows, ...(more > 0 ? [moreOf(more)] : []));
    this.tick();
    this.fit(known.length);
  }

  // As high as whole rows are: the others are scrolled to, and how many there are is said over them.
  fit(all) {
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

  row(one, card) {
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
    const row = make("div", "held-row", ring, make("div", "held-words", words, when));
    row.dataset.line = one.i;
    if (setup.acts)
      row.append(
        button("Let go", null, () => act("let_go", { line: one.i }), one.waits ? "button" : "button plain"),
        button("Pull", null, () => act("pull", { line: one.i }, `Pulled ${card.n}’s line.`), "button plain"),
      );
    row.addEventListener("click", (event) => !event.target.closest("button") && this.pick(one.i));
    return row;
  }

  tick() {
    for (const row of this.box.querySelectorAll(".held-row")) {
      const one = this.held.find((held) => held.i === Number(row.dataset.line));
      if (!one) continue;
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

  pins(cards, large) {
    this.pinned.hidden = cards.length === 0;
    this.pinned.replaceChildren(
      ...cards.map((card) => {
        const row = make(
          "div",
          `held-row pin${card.i === large ? " large" : ""}`,
          make("div", "held-words", make("p", "", markOf(card.m), nameOf(card), " ", wordsOf(card))),
        );
        if (card.i === large) row.append(make("span", "chip off tag", "on the stage"));
        if (setup.acts) row.append(button("Unpin", null, () => act("unpin", { line: card.i }), "button plain"));
        row.addEventListener("click", (event) => !event.target.closest("button") && this.pick(card.i));
        return row;
      }),
    );
  }
}
