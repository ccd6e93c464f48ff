// In the browser's audio thread: how strong the sound was in each twenty-fifth of a second. Only that leaves it.
const A_SECOND = 25;

class Levels extends AudioWorkletProcessor {
  constructor() {
    super();
    this.sum = 0;
    this.count = 0;
    this.every = Math.round(sampleRate / A_SECOND);
  }

  process([[samples]]) {
    for (const sample of samples ?? []) this.sum += sample * sample;
    this.count += samples?.length ?? 128;
    if (this.count >= this.every) {
      this.port.postMessage(this.sum / this.count);
      this.sum = this.count = 0;
    }
    return true;
  }
}

registerProcessor("levels", Levels);
