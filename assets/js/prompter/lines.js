// All lines this prompter knows, by id, in order; what becomes of them; and what is asked to be seen of them.
export class Lines {
  constructor() {
    this.all = [];
    this.byId = new Map();
    this.listeners = [];
    this.feeds = null;
    this.showOff = true;
  }

  heard(listener) {
    this.listeners.push(listener);
  }

  tell(what, value) {
    for (const listener of this.listeners) listener[what]?.(value);
  }

  // Newer ones go to the end, older ones to the beginning.
  add(cards) {
    const fresh = cards.filter((card) => !this.byId.has(card.i));
    if (fresh.length === 0) return;
    for (const card of fresh) this.byId.set(card.i, card);
    const before = this.all[0]?.i ?? Number.POSITIVE_INFINITY;
    const older = fresh.filter((card) => card.i < before && this.all.length > 0);
    const newer = fresh.filter((card) => !older.includes(card));
    this.all = [...older, ...this.all];
    this.all.push(...newer);
    if (older.length > 0)
      this.tell(
        "older",
        older.filter((card) => this.seen(card)),
      );
    if (newer.length > 0)
      this.tell(
        "newer",
        newer.filter((card) => this.seen(card)),
      );
  }

  // From there on these are all there are. What else a page has was never kept, as where everything ended before it could be: it may have
  // come again under another number.
  only(from, cards) {
    const known = new Set(cards.map((card) => card.i));
    const gone = this.all.filter((card) => card.i >= from && !known.has(card.i));
    if (gone.length === 0) return;
    this.all = this.all.filter((card) => !gone.includes(card));
    for (const card of gone) this.byId.delete(card.i);
    this.tell(
      "gone",
      gone.map((card) => card.i),
    );
  }

  change(id, values) {
    const card = this.byId.get(Number(id));
    if (!card) return;
    Object.assign(card, values);
    this.tell("changed", card);
  }

  // Whether it is among what is asked to be seen.
  seen(card) {
    return (!this.feeds || this.feeds.has(card.fd)) && (this.showOff || card.s !== "off");
  }

  choose(values) {
    Object.assign(this, values);
    this.tell("chosen");
  }

  get shown() {
    return this.all.filter((card) => this.seen(card));
  }
}
