// Made-up traffic in this stage's draft: played, held, stepped, at any pace, from any moment.
import { iconAt, make } from "../house/elements.js";
import { say } from "../house/messages.js";
import { attempt, get, send, sendFiles } from "../house/send.js";
import { count, lasting } from "../house/words.js";
import { fill } from "./fields.js";

const FASTEST = 600;
// Of the script, by an arrow key.
const STEP = 0.02;
// The slider's way is logarithmic, its left end the script's own pace.
const rateOf = (value) => (value <= 0 ? "" : Math.round(FASTEST ** (value / 100)));
const placeOf = (rate) => (rate ? Math.round((Math.log(rate) / Math.log(FASTEST)) * 100) : 0);

const at = (id) => document.querySelector(id);
const paceOf = (rate) => (rate.value === "0" ? "its own pace" : `${rateOf(Number(rate.value))} a minute`);

export function rehearsal(here) {
  const made = new Rehearsal(here);
  return ({ rehearsal: running }) => made.show(running);
}

class Rehearsal {
  constructor(here) {
    this.here = here;
    this.scripts = at("#scripts");
    this.rate = at("#rate");
    this.bars = new Bars(at("#script-bars"), (share) => this.goTo(share));
    this.running = null;
    get("/stage/scripts").then((told) => {
      for (const { key, bars } of told.scripts) this.bars.known.set(key, bars);
      this.bars.draw(this.chosen);
    });
    this.listen();
    playBack(here, (done) => this.bars.known.set("playback", done.bars));
  }

  listen() {
    at("#rehearse").addEventListener("click", () => this.play(this.running ? "" : this.chosen));
    at("#hold").addEventListener("click", () => this.tell(this.running?.held ? "on" : "hold"));
    at("#step").addEventListener("click", () => this.tell("step"));
    at("#clear").addEventListener("click", () => attempt(() => send(this.here("clear"))));
    this.scripts.addEventListener("change", () => (this.running ? this.play(this.chosen) : this.bars.draw(this.chosen)));
    this.rate.addEventListener("change", () => this.running && this.tell("rate", rateOf(Number(this.rate.value))));
    this.rate.addEventListener("input", () => {
      fill(this.rate);
      at("#rehearsal-rate").textContent = paceOf(this.rate);
    });
  }

  get chosen() {
    return this.scripts.querySelector("input:checked").value;
  }

  play(script) {
    return attempt(() => send(this.here("rehearse"), { script, rate: rateOf(Number(this.rate.value)) }));
  }

  tell(how, value = "") {
    return attempt(() => send(this.here("rehearsal"), { how, value }));
  }

  async goTo(share) {
    if (!this.running) await this.play(this.chosen);
    const length = this.running?.length ?? 0;
    if (length > 0) this.tell("at", Math.round(Math.min(1, Math.max(0, share)) * length));
  }

  show(running) {
    if (Boolean(running) !== Boolean(this.running))
      at("#rehearsing").textContent = running ? "Made-up lines play in this draft alone." : "The rehearsal is over.";
    this.running = running;
    this.buttons(running);
    this.bars.draw(running?.key ?? this.chosen);
    this.bars.show(running);
    if (running) this.pace(running);
    else if (document.activeElement !== this.rate) at("#rehearsal-rate").textContent = paceOf(this.rate);
  }

  buttons(running) {
    const button = at("#rehearse");
    button.querySelector("span").textContent = running ? "Stop" : "Rehearse";
    button.querySelector("use").setAttribute("href", iconAt(running ? "square" : "play"));
    at("#hold").disabled = at("#step").disabled = !running;
    at("#hold").setAttribute("aria-label", running?.held ? "Go on" : "Hold");
    at("#hold use").setAttribute("href", iconAt(running?.held ? "play" : "pause"));
  }

  pace({ key, rate, held, at: where, per_minute: perMinute }) {
    const radio = this.scripts.querySelector(`[value="${key}"]`);
    if (radio) radio.checked = true;
    if (document.activeElement !== this.rate) this.rate.value = placeOf(rate);
    fill(this.rate);
    at("#rehearsal-rate").textContent = held ? `held at ${lasting(where)}` : `${perMinute} a minute`;
  }
}

// How many lines come when, as bars; and where in them the rehearsal is.
class Bars {
  // goTo: told the share of the script that is pressed
  constructor(element, goTo) {
    this.element = element;
    this.known = new Map();
    this.share = null;
    element.addEventListener("pointerdown", ({ clientX }) => goTo((clientX - element.getBoundingClientRect().left) / element.clientWidth));
    element.addEventListener("keydown", (event) => {
      const by = { ArrowLeft: -STEP, ArrowRight: STEP }[event.key];
      if (!by || this.share === null) return;
      event.preventDefault();
      goTo(this.share + by);
    });
  }

  draw(key) {
    const counted = this.known.get(key);
    if (!counted || this.drawn === key) return;
    this.drawn = key;
    const most = Math.max(1, ...counted.map((one) => one.reduce((sum, part) => sum + part)));
    const mark = make("b", "at");
    mark.hidden = true;
    this.element.replaceChildren(mark, ...counted.map((parts) => make("span", "", ...parts.map((part) => piece(part / most)))));
  }

  show(running) {
    const mark = this.element.querySelector(".at");
    this.share = running ? (running.length > 0 ? running.at / running.length : 0) : null;
    if (mark) mark.hidden = !running;
    if (!running) return;
    if (mark) mark.style.left = `${this.share * 100}%`;
    this.element.setAttribute("aria-valuenow", Math.round(this.share * 100));
  }
}

function piece(share) {
  const made = make("i");
  made.style.height = `${share * 32}px`;
  return made;
}

// What was said, from the log or from a file, played again.
function playBack(here, began) {
  const told = (done) => {
    if (!done) return;
    began(done);
    at(".log-menu").open = false;
    say(`Playing ${count(done.lines, "line")}, for ${lasting(done.lasts_ms)}.`);
  };
  at("#play-recent").addEventListener("click", async () => told(await attempt(() => send(here("play-recent"), { minutes: 10 }))));
  at("#play-log").addEventListener("change", async ({ target }) => {
    const form = new FormData();
    form.append("file", target.files[0]);
    form.append("speed", at("#play-speed").value);
    target.value = "";
    told(await attempt(() => sendFiles(here("play"), form)));
  });
}
