// Levels as RFC 6464 has them: −dBov, 0 for the loudest there is, 127 for silence (worked out as RFC 6465 says).
export const SILENCE = 127;
// The lowest the noise floor can be set to: there is none.
export const NO_FLOOR = -80;

// meanSquare: of samples between −1 and 1; gain: dB; floor: dBov, below which it is silence
export function levelOf(meanSquare, { gain = 0, floor = NO_FLOOR } = {}) {
  if (!(meanSquare > 0)) return SILENCE;
  const dbov = Math.min(0, 10 * Math.log10(meanSquare) + gain);
  if (floor > NO_FLOOR && dbov < floor) return SILENCE;
  return Math.min(SILENCE, Math.round(Math.abs(dbov)));
}

// How long a meter is drawn, 0 to 1: from −80 dBov to the loudest.
export function lengthOf(level) {
  return Math.max(0, Math.min(1, 1 + level / NO_FLOOR));
}

// A meter that is painted every few levels, as far as it was loudest since, and not where it would stay as it is.
const LEVELS_A_PAINT = 4;
const SEEN = 0.02;

export class Meter {
  constructor(paint) {
    this.paint = paint;
    this.shown = this.loudest = this.count = 0;
  }

  heard(level) {
    this.loudest = Math.max(this.loudest, lengthOf(level));
    this.count += 1;
    if (this.count < LEVELS_A_PAINT && level !== SILENCE) return;
    const { loudest } = this;
    this.loudest = this.count = 0;
    if (Math.abs(loudest - this.shown) < SEEN && (loudest > 0 || this.shown === 0)) return;
    this.shown = loudest;
    this.paint(loudest);
  }
}
