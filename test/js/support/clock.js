// Time that stands still until a test moves it: timers, animation frames and performance.now() of a page.
const FRAME_MS = 16;

export class Clock {
  constructor() {
    this.now = 1000;
    this.due = [];
    this.number = 0;
  }

  // Puts it in the place of a page's own.
  install(target) {
    const add = (act, ms, every) => {
      this.number += 1;
      this.due.push({ id: this.number, at: this.now + Math.max(0, ms ?? 0), every, act });
      return this.number;
    };
    const clear = (id) => {
      this.due = this.due.filter((one) => one.id !== id);
    };
    Object.assign(target, {
      setTimeout: (act, ms) => add(act, ms),
      setInterval: (act, ms) => add(act, ms, ms),
      requestAnimationFrame: (act) => add(() => act(this.now), FRAME_MS),
      clearTimeout: clear,
      clearInterval: clear,
      cancelAnimationFrame: clear,
    });
    Object.defineProperty(target, "performance", { configurable: true, value: { now: () => this.now } });
  }

  // Everything that is due until then happens, in its order, each at its own time.
  pass(ms) {
    const until = this.now + ms;
    for (;;) {
      const next = this.due.filter((one) => one.at <= until).sort((one, other) => one.at - other.at || one.id - other.id)[0];
      if (!next) break;
      this.now = Math.max(this.now, next.at);
      if (next.every) next.at += next.every;
      else this.due = this.due.filter((one) => one !== next);
      next.act();
    }
    this.now = until;
  }
}
