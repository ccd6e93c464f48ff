// The cue sheet: cues by kind of event, one of them being set, events that are tried, and the queue.
import { follow } from "../house/desk.js";
import { button, icon, make } from "../house/elements.js";
import { keys } from "../house/keys.js";
import { say } from "../house/messages.js";
import { attempt, get, send, sendJson } from "../house/send.js";
import { drops } from "./drops.js";
import { Edit } from "./edit.js";
import { lacks } from "./lacks.js";
import { Queue } from "./queue.js";
import { Score } from "./score.js";
import { Seen, Thumbs } from "./seen.js";
import { trial, trySample } from "./trial.js";

const LOOK_EVERY_MS = 1500;
const UNHEARD = { NotAllowedError: "This browser plays no sound before something was pressed." };
const list = document.querySelector("#cues");
const state = {
  cues: [],
  findings: [],
  narrowed: {},
  also: {},
  samples: {},
  kinds: {},
  fields: {},
  queue: {},
  places: [],
  plays: {},
  cards: {},
  scores: {},
  sounds: {},
  chosen: null,
};

follow(() => {});

const edit = new Edit(document.querySelector("#edit"), state, {
  changed: take,
  removed(cue, sheet) {
    state.chosen = null;
    take(sheet);
    say(`“${cue.name}” is off the sheet.`, { undo: () => attempt(async () => take(await sendJson("/dress/cues/put-back", cue))) });
  },
  close,
  say: (cue) => hearSpoken(cue, shownAs()),
});
const at = (id) => document.querySelector(id);
const thumbs = new Thumbs();
const seen = new Seen(at("#seen"), (part) => edit.openAt(part));
drops(at("#seen"), {
  chosen: () => state.chosen,
  taken: take,
  words: (words) => words && edit.set({ words }),
});
const score = new Score(at("#score"), {
  set: (values, id) => edit.set(values, id),
  play: playHere,
  trial: () => trySample(state.chosen, shownAs()),
  another,
});
const queue = new Queue({ kinds: () => state.kinds, asks: () => state.queue.approve, changed: take });

function take(sheet) {
  // What was thrown for a cue may fit it no longer.
  thrown.clear();
  const { named, ...rest } = sheet;
  if (named) {
    for (const [name, choices] of Object.entries(named)) document.querySelector("main").dataset[name] = JSON.stringify(choices);
    edit.cue = null;
  }
  Object.assign(state, rest);
  draw();
}

function close() {
  const row = list.querySelector(`[data-cue="${state.chosen}"]`);
  state.chosen = null;
  draw();
  list.querySelector(`[data-cue="${row?.dataset.cue}"]`)?.focus();
}

function draw() {
  const focused = document.activeElement?.dataset?.cue;
  list.replaceChildren(
    ...Object.entries(state.kinds).map(([kind, words]) => {
      const cues = state.cues.filter((cue) => cue.kind === kind);
      const add = button("", "plus", () => addTo(kind), "button plain");
      add.setAttribute("aria-label", `Another cue for ${words}`);
      const head = make("div", "cue-kind", make("h2", "", words[0].toUpperCase() + words.slice(1)), add);
      const rows = cues.length > 0 ? cues.map(row) : [make("p", "said cue-none", "Nothing plays for these.")];
      return make("section", "", head, ...rows);
    }),
  );
  if (focused) list.querySelector(`[data-cue="${focused}"]`)?.focus();
  const approve = document.querySelector("#approve");
  approve.checked = state.queue.approve;
  approve.dataset.kept = state.queue.approve;
  thumbs.tidy();
  const cue = state.cues.find((one) => one.id === state.chosen);
  edit.show(cue);
  showLarge(cue);
}

// What is shown as happening: by chance, once somebody asked for another, else what Ruby thought of.
const thrown = new Map();
const shownAs = () => thrown.get(state.chosen)?.sample ?? state.samples[state.chosen];
const cardOf = (cue) => thrown.get(cue.id)?.card ?? state.cards[cue.id];
const chosen = () => state.cues.find((one) => one.id === state.chosen);

async function another() {
  const { chosen: id } = state;
  const told = await attempt(() => get(`/dress/cues/cues/${id}/another`));
  if (!told) return;
  thrown.set(id, told);
  if (state.chosen === id) showLarge(chosen());
}

async function sayWhy() {
  const why = at("#shown-why");
  const open = why.hidden;
  at("#shown-ask").setAttribute("aria-expanded", open);
  why.hidden = !open;
  if (!open) return;
  const told = await attempt(() => get(`/dress/cues/cues/${state.chosen}/about`));
  if (!told) return;
  const { kind, narrowed, times, of, instead } = told;
  const lately = of === 0 ? "Nothing happened lately." : `Of the last ${of} events ${times} played it.`;
  why.textContent = `For ${kind}, ${narrowed}. ${lately} ${instead ? `Without it “${instead}” would play.` : "Without it nothing would play."}`;
}
at("#shown-ask").addEventListener("click", sayWhy);

const placeFor = (cue) => state.places[state.plays[cue.id]];

const shownWords = ({ name, amount, currency, number, message } = {}) =>
  [name, amount && `${amount} ${currency ?? ""}`.trim(), number, message && `“${message}”`].filter(Boolean).join(" · ");

// Above its score, as viewers will see it.
function showLarge(cue) {
  at("#shown").hidden = !cue;
  if (!cue) {
    seen.clear();
    return score.clear();
  }
  const place = placeFor(cue);
  at("#shown-title").textContent = cue.name;
  at("#shown-when").textContent = state.narrowed[cue.id];
  const link = at("#shown-stage");
  link.lastElementChild.textContent = place.name ? `On ${place.name}` : "No stage plays alerts yet";
  link.href = place.stage ? `/stage/${place.stage}#${place.style.id}` : "/stage";
  lacks(
    at("#shown-lacks"),
    state.findings.filter(([id]) => id === cue.id),
    async () => take(await get("/dress/cues/sheet")),
  );
  const ratio = place.box[2] / place.box[3];
  at("#seen").style.aspectRatio = String(Math.max(1.2, ratio));
  if (at("#shown").dataset.cue !== cue.id) {
    at("#shown").dataset.cue = cue.id;
    at("#shown-why").hidden = true;
    at("#shown-ask").setAttribute("aria-expanded", false);
  }
  const card = cardOf(cue);
  seen.show(place, card);
  showScore(cue, place, card);
}

function showScore(cue, place, card) {
  const { motion } = place.style;
  const words = card.w.map(([, text]) => text).join("");
  const [sound] = [state.sounds[cue.sound]];
  score.show(cue, state.scores[cue.id], {
    in_ms: motion.in_ms,
    out_ms: motion.out_ms,
    peaks: sound?.peaks,
    as: shownWords(shownAs()),
    says: {
      words,
      message: "what they wrote",
      picture: cue.film ? "a film" : "its picture",
      aloud: cue.sound ? "after the sound" : "what they wrote",
      flurry: `${cue.flurry_count} fly`,
      adds: `${cue.adds} to ${cue.adds_to}`,
    },
  });
}

// Here alone: nothing of it is told to anybody.
function playHere() {
  const cue = state.cues.find((one) => one.id === state.chosen);
  if (!cue) return;
  seen.play(cue.length_s * 1000);
  const [, begins] = state.scores[cue.id].find(([part]) => part === "sound" || part === "aloud") ?? [];
  if (begins !== undefined) setTimeout(() => hear(cue.name, shownAs()), begins);
}

function row(cue) {
  const made = make("button", "cue-row");
  made.type = "button";
  made.dataset.cue = cue.id;
  made.classList.toggle("off", !cue.on);
  made.setAttribute("aria-pressed", cue.id === state.chosen);
  const also = [state.narrowed[cue.id], state.also[cue.id]].filter(Boolean).join("; ");
  const thumb = thumbs.add(cue.id, () => ({ place: placeFor(cue), card: state.cards[cue.id] }));
  made.append(thumb, make("span", "cue-name", make("b", "", cue.name), make("span", "said", also)));
  for (const [id, why] of state.findings) if (id === cue.id) made.append(make("span", "chip mind", icon("info"), why));
  made.addEventListener("click", () => {
    state.chosen = cue.id;
    draw();
    turnTo(at(".cue-middle"));
  });
  return made;
}

// Beneath the list, where there is no room beside it.
function turnTo(shown) {
  if (shown.getBoundingClientRect().top >= window.innerHeight) shown.scrollIntoView();
}

async function addTo(kind) {
  const told = await attempt(() => send("/dress/cues/cues", { kind }));
  if (!told) return;
  state.chosen = told.cues.at(-1).id;
  take(told);
}

// What plays in the drafts only is heard here: its sound, then what is said of what happened.
function hear(name, happened) {
  const cue = state.cues.find((one) => one.name === name);
  if (!cue) return;
  const { chime } = placeFor(cue);
  if (!cue.sound && (chime ?? "none") === "none") return hearSpoken(cue, happened);
  const audio = heard(cue.sound ? `/sounds/${cue.sound}.ogg` : `/assets/sounds/${chime}.ogg`, cue.volume);
  audio.addEventListener("ended", () => hearSpoken(cue, happened));
}

function heard(address, volume) {
  const audio = new Audio(address);
  audio.volume = volume / 100;
  audio.play().catch(({ name }) => say(UNHEARD[name] ?? "That cannot be heard just now. Try again in a moment.", { bad: true }));
  return audio;
}

function hearSpoken(cue, happened) {
  if (!cue.spoken_name && !cue.spoken_words && !cue.aloud) return;
  heard(`/dress/cues/cues/${cue.id}/spoken.wav?${new URLSearchParams(happened)}`, cue.spoken_volume);
}

// How many there are in all, as the host types them, and how many of these the platforms tell themselves.
function totals({ totals: all, told }) {
  const rows = Object.entries(all).map(([counted, number]) => {
    const input = make("input", "input figure");
    Object.assign(input, { value: number, inputMode: "numeric" });
    input.setAttribute("aria-label", `${counted} in all`);
    input.addEventListener("change", () =>
      attempt(async () => {
        totals(await send("/dress/cues/totals", { counted, number: input.value }));
        say(`${counted[0].toUpperCase()}${counted.slice(1)} go on from ${input.value}.`);
      }),
    );
    const tell = (told[counted] ?? []).map(([name, own]) => `${name} tells ${own}`).join(", ");
    return make("label", "row", make("span", "label", counted), input, tell ? make("span", "said cue-told", tell) : null);
  });
  document.querySelector("#total-rows").replaceChildren(...rows);
}

trial(() => queue.look(), hear);
attempt(async () => {
  const sheet = await get("/dress/cues/sheet");
  const asked = location.hash.slice(1);
  state.chosen = (sheet.cues.find(({ id, kind }) => id === asked || kind === asked) ?? sheet.cues[0])?.id ?? null;
  take(sheet);
  totals(state);
  // What is pressed before the sheet is here would be lost.
  for (const control of document.querySelectorAll("[data-waits]")) control.disabled = false;
  document.querySelector("#try-kind").append(...Object.entries(state.kinds).map(([kind, words]) => new Option(words, kind)));
  queue.look();
});
setInterval(() => queue.look(), LOOK_EVERY_MS);
keys({
  s: ["Skip what plays", () => queue.act("skip")],
  p: ["Pause the queue, or go on", () => queue.pause()],
  Escape: ["Done with this cue", close],
});
