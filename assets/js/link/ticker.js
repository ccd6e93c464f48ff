// A picture that does not come is not waited for.
const LONGEST_WAIT_MS = 1500;

// Lines that run by one after another, without ever standing on each other.
export class Ticker {
  constructor(stack, speed) {
    this.stack = stack;
    this.speed = speed;
    this.freeAt = 0;
  }

  // Its width is another one once its face and its pictures have come.
  runLater(line, leave, pictures) {
    line.style.visibility = "hidden";
    const come = Promise.all([document.fonts.ready, ...pictures.map((picture) => picture.decode().catch(() => {}))]);
    const enough = new Promise((over) => setTimeout(over, LONGEST_WAIT_MS));
    Promise.race([come, enough]).then(() => {
      line.style.visibility = "";
      if (line.isConnected) this.run(line, leave, true);
    });
  }

  // leave(): when it has run out of sight
  run(line, leave, waited = false) {
    const width = this.stack.clientWidth;
    const now = performance.now();
    const start = Math.max(now, this.freeAt);
    const own = line.offsetWidth;
    const pictures = [...line.querySelectorAll("img")].filter((image) => !image.complete);
    if (!waited && (document.fonts.status === "loading" || pictures.length > 0)) return this.runLater(line, leave, pictures);
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
