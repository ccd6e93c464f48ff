// The column of lines: it stays where the reader scrolled to and says how many are new. Lines stand in blocks; those far
// from what is seen are emptied and keep their height, so that ten thousand cost no more than a few hundred.
import { make } from "../house/elements.js";
import { count } from "../house/words.js";
import { fill, rowOf } from "./row.js";

const BLOCK = 40;
const NEAR_PX = 1600;
const AT_END_PX = 24;
// So long after a wheel, a finger or a key what scrolls is moved by it.
const HAND_MS = 1000;
const HANDS = ["wheel", "touchmove", "keydown", "pointerdown"];

class Block {
  constructor(cards, watch) {
    this.cards = cards;
    this.element = make("div", "block");
    this.element.block = this;
    // What is drawn of them, by id.
    this.rows = new Map();
    this.drawn = false;
    this.watch = watch;
    watch.observe(this.element);
  }

  draw(options) {
    if (this.drawn) return;
    this.drawn = true;
    this.element.style.height = "";
    this.element.replaceChildren(...this.cards.map((card) => this.row(card, options)));
  }

  empty(height) {
    this.element.style.height = `${height}px`;
    this.drawn = false;
    this.rows.clear();
    this.element.replaceChildren();
  }

  add(card, options) {
    this.cards.push(card);
    if (this.drawn) this.element.append(this.row(card, options));
  }

  row(card, options) {
    const row = rowOf(card, options);
    this.rows.set(card.i, row);
    return row;
  }

  remove(ids) {
    this.cards = this.cards.filter((card) => !ids.has(card.i));
    for (const id of ids) {
      this.rows.get(id)?.remove();
      this.rows.delete(id);
    }
  }
}

export class Column {
  constructor(lines, { choose, wantOlder }) {
    this.lines = lines;
    this.choose = choose;
    this.wantOlder = wantOlder;
    this.scroller = document.querySelector("#scroller");
    this.root = document.querySelector("#blocks");
    this.button = document.querySelector("#newer");
    this.options = {};
    this.fresh = 0;
    this.follows = true;
    this.last = { top: 0, whole: 0, room: 0 };
    this.hand = -HAND_MS;
    this.held = false;
    this.chosen = null;
    this.height = 0;
    this.watch = new IntersectionObserver((entries) => this.near(entries), { root: this.scroller, rootMargin: `${NEAR_PX}px 0px` });
    lines.heard({
      newer: (cards) => this.newer(cards),
      older: (cards) => this.older(cards),
      changed: (card) => this.changed(card),
      chosen: () => this.again(),
      gone: (ids) => this.gone(ids),
    });
    this.scroller.addEventListener("scroll", () => this.scrolled(), { passive: true });
    this.feelHands();
    this.feelPicks();
    this.button.addEventListener("click", () => this.toEnd());
    const grown = new ResizeObserver(() => (this.follows ? this.end() : this.keepChosen()));
    for (const element of [this.scroller, this.root]) grown.observe(element);
    this.blocks = [];
  }

  // A press that began on a button which is gone by the time it is let go means that button, and not the line.
  feelPicks() {
    let onButton = false;
    const button = ({ target }) => target.closest("button") !== null;
    this.root.addEventListener("pointerdown", (event) => {
      onButton = button(event);
    });
    this.root.addEventListener("click", (event) => {
      const row = event.target.closest(".row");
      if (row && !onButton && !button(event)) this.pick(Number(row.dataset.line));
      // A click without a press, as of a reader of screens, has begun nowhere.
      onButton = false;
    });
  }

  feelHands() {
    const felt = () => {
      this.hand = performance.now();
    };
    for (const kind of HANDS) this.scroller.addEventListener(kind, felt, { passive: true });
    // A bar is held for as long as somebody likes; not every browser says when it is let go.
    this.scroller.addEventListener("pointerdown", () => {
      this.held = true;
    });
    for (const kind of ["pointerup", "pointercancel", "pointermove"]) {
      addEventListener(kind, ({ buttons }) => {
        if (buttons === 0) this.held = false;
      });
    }
  }

  near(entries) {
    // One that has come and gone since is told of twice.
    const nears = new Map(entries.map(({ target, isIntersecting }) => [target.block, isIntersecting]));
    const leaving = [...nears.keys()].filter((block) => !nears.get(block) && block.drawn);
    // All are measured before any is changed: each would be laid out anew.
    const heights = leaving.map((block) => block.element.offsetHeight);
    for (const [at, block] of leaving.entries()) block.empty(heights[at]);
    for (const [block, isNear] of nears) if (isNear) block.draw(this.options);
    this.chooseAgain();
    if (this.follows) this.end();
  }

  // Where it follows, it is told to before this is painted: the column has grown.
  newer(cards) {
    if (cards.length === 0) return;
    for (const card of cards) {
      if (!this.blocks.length || this.blocks.at(-1).cards.length >= BLOCK) this.append(new Block([], this.watch));
      this.blocks.at(-1).add(card, this.options);
    }
    if (this.follows) return;
    this.fresh += cards.length;
    this.told();
  }

  append(block) {
    this.blocks.push(block);
    this.root.append(block.element);
    block.draw(this.options);
  }

  // What stands stays where it is seen.
  older(cards) {
    if (cards.length === 0) return;
    const from = this.scroller.scrollHeight - this.scroller.scrollTop;
    const made = [];
    for (let at = 0; at < cards.length; at += BLOCK) made.push(new Block(cards.slice(at, at + BLOCK), this.watch));
    this.blocks.unshift(...made);
    this.root.prepend(...made.map((block) => block.element));
    for (const block of made) block.draw(this.options);
    this.scroller.scrollTop = this.scroller.scrollHeight - from;
  }

  changed(card) {
    const row = this.rowOf(card.i);
    if (row) fill(row, card, this.options);
    if (row && this.chosen === card.i) this.choose(card, row);
  }

  gone(ids) {
    const gone = new Set(ids);
    for (const block of this.blocks) block.remove(gone);
    if (ids.includes(this.chosen)) this.pick(this.chosen);
    if (this.follows) this.end();
  }

  // Something else is asked to be seen.
  again() {
    for (const block of this.blocks) this.watch.unobserve(block.element);
    this.blocks = [];
    this.root.replaceChildren();
    const cards = this.lines.shown;
    for (let at = 0; at < cards.length; at += BLOCK) this.append(new Block(cards.slice(at, at + BLOCK), this.watch));
    if (this.chosen !== null && !cards.some((card) => card.i === this.chosen)) this.pick(this.chosen);
    this.chooseAgain();
    this.toEnd();
  }

  // A row that is drawn anew is chosen as the one before it was, with what can be done with it.
  chooseAgain() {
    const row = this.rowOf(this.chosen);
    if (!row || row.classList.contains("chosen")) return;
    row.classList.add("chosen");
    this.choose(this.lines.byId.get(this.chosen), row);
  }

  // Most that is asked for is of the newest.
  rowOf(id) {
    return this.blocks.findLast((block) => block.rows.has(id))?.rows.get(id) ?? null;
  }

  pick(id) {
    this.rowOf(this.chosen)?.classList.remove("chosen");
    this.chosen = this.chosen === id ? null : id;
    const row = this.rowOf(this.chosen);
    row?.classList.add("chosen");
    this.height = this.scroller.getBoundingClientRect().height;
    if (row && this.follows) this.rest();
    this.choose(this.chosen ? this.lines.byId.get(this.chosen) : null, row);
  }

  // What somebody has chosen is not carried away by what comes.
  rest() {
    this.follows = false;
    this.told();
  }

  // The room for lines has become another one, as when something is held above them: what is chosen there stays in sight.
  keepChosen() {
    const row = this.rowOf(this.chosen);
    const { top, height } = this.scroller.getBoundingClientRect();
    const box = row?.getBoundingClientRect();
    const seen = box && box.bottom > top && box.top < top + Math.max(this.height, height);
    this.height = height;
    if (seen) row.scrollIntoView({ block: "nearest" });
  }

  // To the line before or after the one that is chosen.
  step(steps) {
    const shown = this.lines.shown;
    if (shown.length === 0) return;
    const at = shown.findIndex((card) => card.i === this.chosen);
    const to = at === -1 ? shown.length - 1 : Math.min(Math.max(at + steps, 0), shown.length - 1);
    if (shown[to].i !== this.chosen) this.goTo(shown[to].i);
  }

  // Wherever it stands; drawn first where it was emptied.
  goTo(id) {
    const block = this.blocks.find((one) => one.cards.some((card) => card.i === id));
    if (!block) return false;
    this.follows = false;
    block.draw(this.options);
    if (this.chosen !== id) this.pick(id);
    this.rowOf(id)?.scrollIntoView({ block: "nearest" });
    return true;
  }

  // The next one before what is chosen (or seen last) of which that is true.
  jump(kind) {
    const shown = this.lines.shown;
    const from = shown.findIndex((card) => card.i === this.chosen);
    const before = shown.slice(0, from === -1 ? shown.length : from).reverse();
    const found = before.find((card) => card.at?.includes(kind)) ?? [...shown].reverse().find((card) => card.at?.includes(kind));
    if (found && found.i !== this.chosen) this.goTo(found.i);
    return Boolean(found);
  }

  scrolled() {
    const { scrollTop, scrollHeight, clientHeight } = this.scroller;
    const up = scrollTop < this.last.top && this.byHand();
    this.last = { top: scrollTop, whole: scrollHeight, room: clientHeight };
    if (scrollHeight - scrollTop - clientHeight < AT_END_PX) this.follows ||= this.chosen === null;
    else if (up) this.follows = false;
    else if (this.follows) this.end();
    if (this.follows) this.fresh = 0;
    this.told();
    if (scrollTop < NEAR_PX / 2 && !this.asking && this.lines.all.length > 0) {
      this.asking = true;
      this.wantOlder(this.lines.all[0].i).finally(() => {
        this.asking = false;
      });
    }
  }

  // What grows or shrinks above or below is nobody's scrolling, unless a hand is at it just now; what scrolls where nothing else changed is
  // somebody's, as by the browser's own search.
  byHand() {
    return this.held || performance.now() - this.hand < HAND_MS || this.unchanged();
  }

  // Since it was scrolled last.
  unchanged() {
    const { scrollHeight, clientHeight } = this.scroller;
    return scrollHeight === this.last.whole && clientHeight === this.last.room;
  }

  toEnd() {
    this.follows = true;
    this.fresh = 0;
    this.end();
    this.told();
  }

  // What has changed is remembered: it may be as it was before anybody is told of this scrolling, as where lines go and as many come.
  end() {
    this.scroller.scrollTop = this.scroller.scrollHeight;
    if (!this.unchanged()) this.last.whole = null;
  }

  told() {
    this.button.hidden = this.follows;
    this.button.textContent = this.fresh === 0 ? "To the newest" : `${count(this.fresh, "new line")}`;
  }
}
