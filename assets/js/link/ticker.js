// Lines that run by one after another, without ever standing on each other.
export class Ticker {
  constructor(stack, speed) {
    this.stack = stack;
    this.speed = speed;
    this.freeAt = 0;
  }

  // leave(): when it has run out of sight
  run(line, leave) {
    const width = this.stack.clientWidth;
    const now = performance.now();
    const start = Math.max(now, this.freeAt);
    const own = line.offsetWidth;
    // Behind by more than a box, it runs faster.
    const behind = (start - now) / 1000;
    const speed = this.speed * (1 + Math.min(3, (behind * this.speed) / Math.max(1, width)));
    this.freeAt = start + (own / speed) * 1000;
    const way = line.animate([{ transform: `translateX(${width}px)` }, { transform: `translateX(${-own}px)` }], {
      delay: start - now,
      duration: ((width + own) / speed) * 1000,
      fill: "both",
    });
    way.onfinish = leave;
  }
}
