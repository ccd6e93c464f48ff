// A platform recorded live: what is asked for, how it goes, and what comes.
import { make } from "../house/elements.js";
import { attempt, get, send, sendJson } from "../house/send.js";

const LOOK_MS = 800;

export class Recording {
  // given(): the text; came(frames); told(how it stands)
  constructor({ path, given, came, told }) {
    Object.assign(this, { path, given, came, told });
    this.opener = document.querySelector("#record");
    this.form = document.querySelector("#record-form");
    this.asks = document.querySelector("#record-asks");
    this.state = document.querySelector("#record-state");
    this.opener.addEventListener("click", () => (this.running ? this.stop() : this.open(this.form.hidden)));
    this.form.addEventListener("submit", (event) => {
      event.preventDefault();
      this.begin();
    });
  }

  open(open) {
    this.form.hidden = !open;
    if (open) this.form.querySelector("input, button").focus();
  }

  // What has to be said to be led to one place there; what was typed already stays.
  ask(asks) {
    const known = JSON.stringify(asks);
    if (known === this.known) return;
    this.known = known;
    const typed = this.values();
    this.asks.replaceChildren(
      ...asks.map(({ name, label, example, type }) => {
        const input = make("input", "input");
        Object.assign(input, { name, type, value: typed[name] ?? "", placeholder: example ?? "", autocomplete: "off", spellcheck: false });
        return make("label", "label", label, input);
      }),
    );
  }

  values() {
    return Object.fromEntries([...this.asks.querySelectorAll("input")].map((input) => [input.name, input.value]));
  }

  async begin() {
    const begun = await attempt(() => sendJson(`${this.path}/record`, { ...this.given(), values: this.values() }));
    if (!begun) return;
    this.open(false);
    this.running = true;
    this.from = 0;
    this.draw({ words: "Connecting.", over: false });
    this.look();
  }

  async look() {
    const found = await get(`${this.path}/recording?from=${this.from}`).catch(() => null);
    if (found) {
      this.from += found.frames.length;
      this.running = found.told !== null && !found.told.over;
      this.draw(found.told ?? { words: "", over: true });
      this.came(found.frames);
      if (found.told) this.told(found.told);
    }
    if (this.running) setTimeout(() => this.look(), LOOK_MS);
  }

  draw({ words, over }) {
    this.state.hidden = over;
    this.state.textContent = `${words} ${this.from} ${this.from === 1 ? "frame" : "frames"} so far.`;
    this.opener.lastElementChild.textContent = over ? "Record" : "Stop";
    this.opener.classList.toggle("recording", !over);
  }

  stop() {
    return attempt(() => send(`${this.path}/recording/stop`));
  }
}
