// Made-up traffic in this stage's draft: played, held, stepped, at any pace, from any moment.
import { iconAt, make } from "../house/elements.js";
import { say } from "../house/messages.js";
import { attempt, get, send, sendFiles } from "../house/send.js";
import { count, lasting } from "../house/words.js";
import { fill } from "./fields.js";

const FASTEST = 600;
// The slider's way is logarithmic, its left end the script's own pace.
const rateOf = (value) => (value <= 0 ? "" : Math.round(FASTEST ** (value / 100)));
const placeOf = (rate) => (rate ? Math.round((Math.log(rate) / Math.log(FASTEST)) * 100) : 0);

export function rehearsal(here) {
  const element = (id) => document.querySelector(id);
  const scripts = element("#scripts");
  const bars = element("#script-bars");
  const rate = element("#rate");
  const known = new Map();
  const state = { running: null, shown: null };

  const chosen = () => scripts.querySelector("input:checked").value;
  const play = (script) => attempt(() => send(here("rehearse"), { script, rate: rateOf(Number(rate.value)) }));
  const tell = (how, value = "") => attempt(() => send(here("rehearsal"), { how, value }));

  get("/stage/scripts").then((told) => {
    for (const { key, bars: counted } of told.scripts) known.set(key, counted);
    drawBars(chosen());
  });

  element("#rehearse").addEventListener("click", () => play(state.running ? "" : chosen()));
  element("#hold").addEventListener("click", () => tell(state.running?.held ? "on" : "hold"));
  element("#step").addEventListener("click", () => tell("step"));
  element("#clear").addEventListener("click", () => attempt(() => send(here("clear"))));
  scripts.addEventListener("change", () => (state.running ? play(chosen()) : drawBars(chosen())));
  rate.addEventListener("change", () => state.running && tell("rate", rateOf(Number(rate.value))));
  rate.addEventListener("input", () => {
    fill(rate);
    element("#rehearsal-rate").textContent = rate.value === "0" ? "its own pace" : `${rateOf(Number(rate.value))} a minute`;
  });
  bars.addEventListener("pointerdown", (event) => goTo((event.clientX - bars.getBoundingClientRect().left) / bars.clientWidth));
  bars.addEventListener("keydown", (event) => {
    const by = { ArrowLeft: -0.02, ArrowRight: 0.02 }[event.key];
    if (!by || !state.running) return;
    event.preventDefault();
    goTo(state.running.at / state.running.length + by);
  });

  async function goTo(share) {
    if (!state.running) await play(chosen());
    const length = state.running?.length ?? 0;
    if (length > 0) tell("at", Math.round(Math.min(1, Math.max(0, share)) * length));
  }

  element("#play-recent").addEventListener("click", async () => began(await attempt(() => send(here("play-recent"), { minutes: 10 }))));
  element("#play-log").addEventListener("change", async (event) => {
    const form = new FormData();
    form.append("file", event.target.files[0]);
    form.append("speed", element("#play-speed").value);
    event.target.value = "";
    began(await attempt(() => sendFiles(here("play"), form)));
  });

  function began(done) {
    if (!done) return;
    known.set("playback", done.bars);
    document.querySelector(".log-menu").open = false;
    say(`Playing ${count(done.lines, "line")}, for ${lasting(done.lasts_ms)}.`);
  }

  function drawBars(key) {
    const counted = known.get(key);
    if (!counted || state.shown === key) return;
    state.shown = key;
    const most = Math.max(1, ...counted.map((one) => one.reduce((sum, part) => sum + part)));
    const at = make("b", "at");
    at.hidden = true;
    bars.replaceChildren(
      at,
      ...counted.map((parts) => {
        const bar = make("span");
        for (const part of parts) {
          const piece = make("i");
          piece.style.height = `${(part / most) * 32}px`;
          bar.append(piece);
        }
        return bar;
      }),
    );
  }

  return ({ rehearsal: running }) => {
    const began = Boolean(running) !== Boolean(state.running);
    state.running = running;
    const button = element("#rehearse");
    button.querySelector("span").textContent = running ? "Stop" : "Rehearse";
    button.querySelector("use").setAttribute("href", iconAt(running ? "square" : "play"));
    element("#hold").disabled = element("#step").disabled = !running;
    element("#hold").setAttribute("aria-label", running?.held ? "Go on" : "Hold");
    element("#hold use").setAttribute("href", iconAt(running?.held ? "play" : "pause"));
    drawBars(running?.key ?? chosen());
    const at = bars.querySelector(".at");
    if (at) at.hidden = !running;
    if (began) element("#rehearsing").textContent = running ? "Made-up lines play in this draft alone." : "The rehearsal is over.";
    if (!running) {
      if (document.activeElement !== rate)
        element("#rehearsal-rate").textContent = rate.value === "0" ? "its own pace" : `${rateOf(Number(rate.value))} a minute`;
      return;
    }
    const share = running.length > 0 ? running.at / running.length : 0;
    if (at) at.style.left = `${share * 100}%`;
    bars.setAttribute("aria-valuenow", Math.round(share * 100));
    const radio = scripts.querySelector(`[value="${running.key}"]`);
    if (radio) radio.checked = true;
    if (document.activeElement !== rate) rate.value = placeOf(running.rate);
    fill(rate);
    element("#rehearsal-rate").textContent = running.held ? `held at ${lasting(running.at)}` : `${running.per_minute} a minute`;
  };
}
