// One microphone, as a number 25 times a second. Listens on after sleep, and when the device is changed or taken away.
const WORKLET = new URL("./levels_worklet.js", import.meta.url);
const AGAIN_MS = 2000;
// All of a voice that counts, and a third of the work.
const RATE = 16000;
const LEVELS_A_SECOND = 25;
const TROUBLE = {
  NotAllowedError: "This browser may not use the microphone. Allow it beside the address, then switch it on again.",
  NotFoundError: "No microphone is there. It is used as soon as one is plugged in.",
  OverconstrainedError: "That microphone is not there any more. Choose another one.",
  NotReadableError: "Another program keeps the microphone to itself. Close that, then switch it on again.",
  insecure: "A browser gives the microphone only to pages at https. Ask for a link that begins with it.",
};
// It comes back by itself from these.
const PASSES = new Set(["NotFoundError", "NotReadableError", "AbortError", "OverconstrainedError"]);

export class Ear {
  // level(meanSquare): heard; state(on, trouble): whether it listens, and in words why not
  constructor({ level, state }) {
    this.tell = { level, state };
    this.device = "";
    this.wanted = false;
    navigator.mediaDevices?.addEventListener("devicechange", () => this.look());
    document.addEventListener("visibilitychange", () => this.look());
  }

  get live() {
    return this.track?.readyState === "live";
  }

  // device: the id of one, or "" for the usual one
  async listen(device = this.device) {
    this.device = device;
    this.wanted = true;
    this.turn = (this.turn ?? 0) + 1;
    const { turn } = this;
    if (!navigator.mediaDevices) return this.tell.state(false, TROUBLE.insecure);
    try {
      const stream = await navigator.mediaDevices.getUserMedia({ audio: this.wish() });
      // Another device was chosen, or it was switched off, while somebody was asked.
      if (turn !== this.turn) return stop(stream);
      await this.use(stream);
      this.tell.state(true);
    } catch (error) {
      if (turn !== this.turn) return;
      this.tell.state(false, TROUBLE[error.name] ?? `The microphone cannot be used: ${error.message}`);
      if (PASSES.has(error.name)) this.again();
    }
  }

  // Levels are to be those of the person: no loudness that is evened out, no friends from the loudspeaker.
  wish() {
    const wish = { autoGainControl: false, echoCancellation: true, noiseSuppression: true };
    return this.device ? { ...wish, deviceId: { exact: this.device } } : wish;
  }

  async use(stream) {
    this.let_go();
    this.stream = stream;
    [this.track] = stream.getAudioTracks();
    this.track.addEventListener("ended", () => this.again());
    this.source = await this.sourceOf(stream);
    if (this.context.state === "suspended") await this.context.resume();
    this.node = new AudioWorkletNode(this.context, "levels", { numberOfOutputs: 0, channelCount: 1, channelCountMode: "explicit" });
    this.node.port.onmessage = ({ data }) => this.wanted && this.tell.level(data);
    this.source.connect(this.node);
  }

  // Not every browser takes a microphone at another rate than its own.
  async sourceOf(stream) {
    this.context ??= await begin({ sampleRate: RATE });
    try {
      return this.context.createMediaStreamSource(stream);
    } catch (error) {
      if (error.name !== "NotSupportedError") throw error;
      this.context.close();
      this.context = await begin({});
      return this.context.createMediaStreamSource(stream);
    }
  }

  again() {
    if (!this.wanted) return;
    clearTimeout(this.waiting);
    this.waiting = setTimeout(() => this.look(), AGAIN_MS);
  }

  // Whatever was changed or slept meanwhile.
  look() {
    if (!this.wanted) return;
    if (this.context?.state !== "running") this.context?.resume();
    if (!this.live) this.listen();
  }

  let_go() {
    this.source?.disconnect();
    if (this.node) this.node.port.onmessage = null;
    if (this.stream) stop(this.stream);
  }

  off() {
    this.wanted = false;
    this.turn = (this.turn ?? 0) + 1;
    clearTimeout(this.waiting);
    this.let_go();
    this.context?.suspend();
    this.tell.state(false);
  }

  async devices() {
    const all = (await navigator.mediaDevices?.enumerateDevices()) ?? [];
    return all.filter((one) => one.kind === "audioinput" && one.deviceId && one.deviceId !== "default");
  }
}

function stop(stream) {
  for (const track of stream.getTracks()) track.stop();
}

// Nothing is heard from it, so no loudspeaker is needed where the browser can do without; and it may work as seldom as a level goes out.
async function begin(more) {
  const context = new AudioContext({ latencyHint: 1 / LEVELS_A_SECOND, sinkId: { type: "none" }, ...more });
  await context.audioWorklet.addModule(WORKLET);
  return context;
}
