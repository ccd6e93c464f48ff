// In the browser's audio thread: how strong the sound was in each twenty-fifth of a second. Only that leaves it.
const A_SECOND = 25;

class Levels extends AudioWorkletProcessor {
  constructor() {
    super();
    this.sum = 0;
    this.count = 0;
    this.every = Math.round(sampleRate / A_SECOND);
  }

  // Called hundreds of times a second: nothing is made here.
  process(inputs) {
    const samples = inputs[0][0];
    const count = samples === undefined ? 128 : samples.length;
    let sum = 0;
    if (samples !== undefined) for (let at = 0; at < count; at += 1) sum += samples[at] * samples[at];
    this.sum += sum;
    this.count += count;
    if (this.count >= this.every) {
      this.port.postMessage(this.sum / this.count);
      this.sum = this.count = 0;
    }
    return true;
  }
}

registerProcessor("levels", Levels);
