// Emotes drawn once at each size and angle they are seen at, so that a frame only copies them.
const STEPS = 72;
const STEP_DEGREES = 360 / STEPS;
// Sizes are told apart by so many pixels.
const SIZE_STEP_PX = 4;
const MOST = 3000;

export class Sprites {
  constructor() {
    this.drawn = new Map();
  }

  // image: there, and whole; height in pixels; gives a canvas whose middle is the emote's
  of(image, height, degrees) {
    const size = Math.max(SIZE_STEP_PX, Math.round(height / SIZE_STEP_PX) * SIZE_STEP_PX);
    const step = ((Math.round(degrees / STEP_DEGREES) % STEPS) + STEPS) % STEPS;
    const key = `${image.src} ${size} ${step}`;
    const known = this.drawn.get(key);
    if (known) return known;
    const made = this.draw(image, size, step * STEP_DEGREES);
    this.drawn.set(key, made);
    // The oldest first, which is the first in the map.
    if (this.drawn.size > MOST) this.drawn.delete(this.drawn.keys().next().value);
    return made;
  }

  draw(image, height, degrees) {
    const width = height * (image.naturalWidth / image.naturalHeight || 1);
    const turned = degrees !== 0;
    const [across, down] = turned ? [Math.hypot(width, height), Math.hypot(width, height)] : [width, height];
    const canvas = new OffscreenCanvas(Math.ceil(across), Math.ceil(down));
    const pen = canvas.getContext("2d");
    pen.imageSmoothingQuality = "high";
    pen.translate(canvas.width / 2, canvas.height / 2);
    pen.rotate((degrees * Math.PI) / 180);
    pen.drawImage(image, -width / 2, -height / 2, width, height);
    return canvas;
  }
}
