// Still emotes in flight, on one canvas: many layers of their own are more than a computer without a graphics card can move.
import { Sprites } from "./sprites.js";

export const IN_MS = 220;
export const OUT_MS = 360;
const sprites = new Sprites();

// How much of it is seen at a moment of its time; what grows is there at once.
export function seen(ms, length, grows) {
  const out = Math.min(OUT_MS, length / 3);
  return Math.min(1, grows ? 1 : ms / Math.min(IN_MS, length * 0.3), Math.max(0, length - ms) / out);
}

// How large it is by then, of its own size.
export const grown = (ms, grows) => (!grows || ms >= grows ? 1 : 1 - (1 - ms / grows) ** 2);

export class FlightCanvas {
  constructor(parent) {
    this.parent = parent;
    this.flights = [];
    this.touched = [];
    this.canvas = document.createElement("canvas");
    this.canvas.className = "flight-canvas";
  }

  get size() {
    return this.flights.length;
  }

  // flight: h height, ms length, w wait, z depth, p points [share in thousandths, x, y, degrees], g ms to grow in, image, done
  add(flight) {
    const at = this.flights.findIndex((other) => other.z < flight.z);
    const made = { ...flight, begins: performance.now() + flight.w, leg: 0 };
    this.flights.splice(at < 0 ? this.flights.length : at, 0, made);
    if (this.drawing === undefined) this.begin();
  }

  // Those for which the test is true are gone at once.
  drop(test) {
    this.flights = this.flights.filter((flight) => !test(flight) || this.end(flight));
  }

  end(flight) {
    flight.done();
    return false;
  }

  begin() {
    Object.assign(this.canvas, { width: this.parent.clientWidth, height: this.parent.clientHeight });
    this.pen = this.canvas.getContext("2d");
    this.touched = [];
    this.parent.append(this.canvas);
    this.drawing = requestAnimationFrame((now) => this.draw(now));
  }

  // Only what was drawn before is wiped.
  draw(now) {
    for (const box of this.touched) this.pen.clearRect(...box);
    this.touched.length = 0;
    const over = [];
    for (const flight of this.flights) if (!this.put(flight, now)) over.push(flight);
    if (over.length > 0) this.drop((flight) => over.includes(flight));
    if (this.flights.length > 0) this.drawing = requestAnimationFrame((next) => this.draw(next));
    else this.rest();
  }

  // Nothing flies: no canvas is kept.
  rest() {
    if (this.drawing !== undefined) cancelAnimationFrame(this.drawing);
    this.drawing = undefined;
    this.canvas.remove();
    this.canvas.width = 0;
  }

  // False once its time is over.
  put(flight, now) {
    const ms = now - flight.begins;
    if (ms >= flight.ms) return false;
    if (ms < 0 || !flight.image.complete || flight.image.naturalWidth === 0) return true;
    const [x, y, degrees] = place(flight, (ms / flight.ms) * 1000);
    const sprite = sprites.of(flight.image, flight.h, degrees);
    const part = grown(ms, flight.g);
    const [width, height] = [Math.ceil(sprite.width * part), Math.ceil(sprite.height * part)];
    const left = Math.round(x - width / 2);
    const top = Math.round(y - height / 2);
    this.pen.globalAlpha = seen(ms, flight.ms, flight.g);
    if (part < 1) this.pen.drawImage(sprite, left, top, width, height);
    else this.pen.drawImage(sprite, left, top);
    this.touched.push([left, top, width, height]);
    return true;
  }
}

// Straight on between two of its points.
function place(flight, share) {
  const { p: points } = flight;
  while (flight.leg < points.length - 2 && points[flight.leg + 1][0] <= share) flight.leg += 1;
  const [from, to] = [points[flight.leg], points[flight.leg + 1] ?? points[flight.leg]];
  const part = to[0] > from[0] ? Math.min(1, (share - from[0]) / (to[0] - from[0])) : 1;
  return [1, 2, 3].map((at) => from[at] + (to[at] - from[at]) * part);
}
