// A chime by kind of line, made by the browser itself; not more often than set.
import { make } from "../house/elements.js";
import { kept, keep } from "./kept.js";

const KINDS = {
  mention: "A line that names you",
  question: "A question",
  first: "A first line",
  supporter: "A supporter",
  waits: "Something is held for you",
  all: "Every line",
};
// Names of chimes, with their notes in hertz and how far apart they come.
const CHIMES = { none: [], drop: [880], reed: [523, 659], wren: [1319, 1568, 1760], bell: [784, 1047], knock: [196, 196] };
const APART_S = 0.09;
const LASTS_S = 0.35;

export class Chime {
  constructor() {
    this.settings = {
      volume: 0.4,
      every_s: 5,
      mention: "reed",
      question: "none",
      first: "none",
      supporter: "wren",
      waits: "knock",
      all: "none",
      ...kept("chime"),
    };
    this.at = 0;
    this.sheet();
  }

  sheet() {
    const rows = Object.entries(KINDS).map(([kind, words]) => {
      const field = make("select", "", ...Object.keys(CHIMES).map((name) => new Option(name, name)));
      field.value = this.settings[kind];
      field.setAttribute("aria-label", words);
      field.addEventListener("change", () => {
        this.set({ [kind]: field.value });
        this.play(field.value);
      });
      return make("label", "sheet-row", words, make("div", "select", field));
    });
    const number = (label, name, max, step) => {
      const field = make("input");
      Object.assign(field, { type: "range", min: 0, max, step, value: this.settings[name] });
      field.setAttribute("aria-label", label);
      field.addEventListener("change", () => this.set({ [name]: Number(field.value) }));
      return make("label", "sheet-row", label, field);
    };
    document
      .querySelector("#chime-sheet")
      .replaceChildren(...rows, number("Volume", "volume", 1, 0.05), number("Not more often than every (s)", "every_s", 60, 1));
  }

  set(values) {
    Object.assign(this.settings, values);
    keep("chime", this.settings);
  }

  heard(cards) {
    for (const card of cards) {
      if (card.s === "off") continue;
      const kind =
        card.s === "waits"
          ? "waits"
          : ["mention", "supporter", "first", "question"].find((one) => card.at?.includes(one) && this.settings[one] !== "none");
      const chime = this.settings[kind ?? "all"];
      if (chime !== "none" && performance.now() - this.at >= this.settings.every_s * 1000) this.play(chime);
    }
  }

  play(name) {
    if (this.settings.volume === 0) return;
    this.at = performance.now();
    this.sound ??= new AudioContext();
    for (const [index, hertz] of CHIMES[name].entries()) {
      const from = this.sound.currentTime + index * APART_S;
      const tone = this.sound.createOscillator();
      const loudness = this.sound.createGain();
      tone.type = "triangle";
      tone.frequency.value = hertz;
      loudness.gain.setValueAtTime(0, from);
      loudness.gain.linearRampToValueAtTime(this.settings.volume, from + 0.01);
      loudness.gain.exponentialRampToValueAtTime(0.001, from + LASTS_S);
      tone.connect(loudness).connect(this.sound.destination);
      tone.start(from);
      tone.stop(from + LASTS_S);
    }
  }
}
