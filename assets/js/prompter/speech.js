// Reading aloud: what is said is worked out by Ruby; here it waits for its turn and is spoken, by the browser's voices or,
// where there are none, by the machine Bavard runs on.
import { button, make } from "../house/elements.js";
import { kept, keep } from "./kept.js";
import { ask, setup } from "./door.js";

const WHICH = { none: "Nothing", mention: "Lines that name you", supporter: "Supporters", all: "Every line" };
// Beyond that, what waited longest is left out.
const CEILING = 6;
const AIRED = new Set(["aired", "held"]);

export class Speech {
  constructor() {
    this.waiting = [];
    this.settings = { which: "none", rate: 1, volume: 1, voice: "", ...kept("speech") };
    this.box = document.querySelector("#speaking");
    document.querySelector("#speech-skip").addEventListener("click", () => this.skip());
    document.querySelector("#speech-stop").addEventListener("click", () => this.stop());
    this.sheet();
    globalThis.speechSynthesis?.addEventListener?.("voiceschanged", () => this.sheet());
  }

  sheet() {
    const sheet = document.querySelector("#speech-sheet");
    const select = (label, name, choices) => {
      const field = make("select", "", ...Object.entries(choices).map(([value, words]) => new Option(words, value)));
      field.value = this.settings[name];
      field.setAttribute("aria-label", label);
      field.addEventListener("change", () => this.set({ [name]: field.value }));
      return make("label", "sheet-row", label, make("div", "select", field));
    };
    const range = (label, name, min, max) => {
      const field = make("input");
      Object.assign(field, { type: "range", min, max, step: 0.1, value: this.settings[name] });
      field.setAttribute("aria-label", label);
      field.addEventListener("change", () => this.set({ [name]: Number(field.value) }));
      return make("label", "sheet-row", label, field);
    };
    const voices = this.voices.map((voice) => [voice.voiceURI, voice.name]);
    sheet.replaceChildren(
      select("Read aloud", "which", WHICH),
      select("Voice", "voice", { "": voices.length > 0 ? "the browser’s own" : "of the machine", ...Object.fromEntries(voices) }),
      range("Speed", "rate", 0.5, 2),
      range("Volume", "volume", 0, 1),
      button("Stop", "square", () => this.stop()),
    );
  }

  get voices() {
    return globalThis.speechSynthesis?.getVoices() ?? [];
  }

  set(values) {
    Object.assign(this.settings, values);
    keep("speech", this.settings);
    if (this.settings.which === "none") this.stop();
  }

  heard(cards) {
    const { which } = this.settings;
    if (which === "none") return;
    for (const card of cards) if (AIRED.has(card.s) && (which === "all" || card.at?.includes(which))) this.say(card);
  }

  // What is pulled is not said any more.
  gone(id) {
    this.waiting = this.waiting.filter((card) => card.i !== id);
    if (this.now?.i === id) this.skip();
  }

  say(card) {
    this.waiting.push(card);
    if (this.waiting.length > CEILING) this.waiting.shift();
    this.next();
  }

  async next() {
    if (this.now || this.waiting.length === 0) return;
    const card = this.waiting.shift();
    this.now = card;
    try {
      const again = this.last === card.p ? "?again=1" : "";
      const { text } = await ask(`/say/${card.i}${again}`);
      this.last = card.p;
      if (text && this.now === card) await this.speak(card, text, again);
    } catch {
      // A line that cannot be said is not said.
    }
    if (this.now !== card) return;
    this.now = null;
    this.box.hidden = true;
    this.next();
  }

  speak(card, text, again) {
    this.box.hidden = false;
    document.querySelector("#speaking-words").textContent = text;
    return new Promise((done) => {
      this.done = done;
      const voice = this.voices.find((one) => one.voiceURI === this.settings.voice) ?? this.voices[0];
      if (!voice) return this.play(`${setup.base}/say/${card.i}/wav${again}`, done);
      const words = new SpeechSynthesisUtterance(text);
      Object.assign(words, { voice, rate: this.settings.rate, volume: this.settings.volume, lang: voice.lang });
      words.addEventListener("end", done);
      words.addEventListener("error", done);
      speechSynthesis.speak(words);
    });
  }

  play(address, done) {
    this.sound = new Audio(address);
    this.sound.volume = this.settings.volume;
    this.sound.playbackRate = this.settings.rate;
    this.sound.addEventListener("ended", done);
    this.sound.addEventListener("error", done);
    this.sound.play().catch(done);
  }

  skip() {
    globalThis.speechSynthesis?.cancel();
    this.sound?.pause();
    this.done?.();
  }

  stop() {
    this.waiting = [];
    this.skip();
  }
}
