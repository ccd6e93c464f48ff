// The host's own microphone, heard here: for portraits of one person, and wherever the others stand.
import { button, icon, make } from "../house/elements.js";
import { attempt, send } from "../house/send.js";
import { Meter, SILENCE } from "../microphone/level.js";
import { Voice, wordsOf } from "../microphone/voice.js";

export class OwnMicrophone {
  constructor() {
    this.summary = document.querySelector("#microphone-mark");
    this.sheet = document.querySelector("#microphone-sheet");
    this.bar = make("span", "own-meter-bar");
    this.meter = new Meter((length) => {
      this.bar.style.transform = `scaleX(${length})`;
    });
    this.says = make("p", "said");
    this.turn = button("", "mic", () => this.toggle(), "");
    this.mute = button("", "mic-off", () => this.voice.mute(), "");
    this.device = make("select");
    this.device.setAttribute("aria-label", "Your microphone");
    this.device.addEventListener("change", () => this.voice.choose(this.device.value));
    this.voice = new Voice({ changed: () => this.draw(), heard: (level) => this.meter.heard(this.voice.settings.muted ? SILENCE : level) });
    this.sheet.append(
      make("label", "sheet-row", "Your microphone", make("div", "select", this.device)),
      make("span", "own-meter", this.bar),
      this.says,
      this.turn,
      this.mute,
    );
    this.draw();
    this.list();
    navigator.mediaDevices?.addEventListener("devicechange", () => this.list());
    if (this.voice.settings.on) this.begin();
  }

  async toggle() {
    if (this.voice.settings.on) return this.voice.off();
    await this.begin();
    this.list();
  }

  // Its room is made when it is first wanted.
  async begin() {
    const own = this.voice.line ? {} : await attempt(() => send("/feeds/microphones/mine"));
    if (!own) return;
    if (own.path) this.voice.connect(`${own.path}/live`);
    await this.voice.on();
  }

  list() {
    return this.voice.list(this.device);
  }

  words(state, settings) {
    if (state.trouble) return state.trouble;
    if (state.gone) return "Your microphone was taken out of its room. Load this page again to come back.";
    return settings.on ? wordsOf(state, settings) : "Only how loud you are is sent, never sound.";
  }

  draw() {
    if (!this.voice) return;
    const { state, settings } = this.voice;
    this.says.textContent = this.words(state, settings);
    this.turn.replaceChildren(icon("mic"), settings.on ? "Switch it off" : "Switch it on");
    this.mute.replaceChildren(icon("mic-off"), settings.muted ? "Be heard again" : "Mute");
    this.mute.hidden = !settings.on;
    this.summary.classList.toggle("talks", state.talks);
    this.summary.classList.toggle("trouble", settings.on && !(state.listens && state.open));
    this.summary.replaceChildren(icon(settings.on && !settings.muted ? "mic" : "mic-off"));
  }
}
