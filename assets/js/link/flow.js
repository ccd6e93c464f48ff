// Whether what comes over a line is of now. Behind a connection that stalls, what was said and what was taken away come in one heap,
// one after the other: nothing of it is shown before the server's answer to a question, which comes behind all of it.
// What takes so much longer on its way than it can, or less than it can (the clock here stood still), may be of such a heap.
const LATE_MS = 150;
// A line whose answers take longer than that has to show first that it is always so slow.
const SLOW_MS = 300;
const TRIPS = 3;
const MOST_TRIPS = 20;

export class Flow {
  number = 0;
  asked = null;
  least = null;
  trips = [];

  // ask(number): asks the server, which answers in its turn
  constructor(ask) {
    this.ask = ask;
  }

  // Over another line: nothing is known of it yet.
  begin() {
    this.least = null;
    this.asked = null;
    this.trips = [];
    this.doubt();
  }

  get behind() {
    return this.asked !== null;
  }

  // at: the server's milliseconds when it was sent
  heard(at) {
    if (at === undefined) return;
    const way = performance.now() - at;
    const before = this.least;
    this.least = Math.min(way, before ?? way);
    if (before !== null && Math.abs(way - before) > LATE_MS) this.doubt();
  }

  doubt() {
    if (!this.behind) this.question();
  }

  question() {
    this.number += 1;
    this.asked = this.number;
    this.askedAt = performance.now();
    this.ask(this.number);
  }

  // With how long ago it was sent, as far as that is known; also of those that are told in one.
  aged(frame) {
    const now = performance.now() - (this.least ?? performance.now());
    const age = (one) => ({ ...one, age: this.least === null || one.t === undefined ? 0 : Math.max(0, now - one.t) });
    return frame.missed ? { ...frame, missed: frame.missed.map(age) } : age(frame);
  }

  // Gives whether all that was sent before is here now. An answer that was itself in the heap says nothing of what lies behind it.
  answered(number, at) {
    if (number !== this.asked) return false;
    const now = performance.now();
    this.trips = [...this.trips.slice(-MOST_TRIPS), now - this.askedAt];
    if (!this.trusted()) {
      this.question();
      return false;
    }
    this.asked = null;
    this.trips = [];
    this.least = now - at;
    return true;
  }

  // Of a slow line the quickest answer of several says how slow it is: what takes hardly longer was in no heap.
  trusted() {
    const trip = this.trips.at(-1);
    return trip <= SLOW_MS || (this.trips.length >= TRIPS && trip <= 1.5 * Math.min(...this.trips) + LATE_MS);
  }
}
