// The cue sheet: cues by kind of event, one of them being set, events that are tried, and the queue.
import { follow } from "../house/desk.js";
import { button, icon, make } from "../house/elements.js";
import { keys } from "../house/keys.js";
import { say } from "../house/messages.js";
import { attempt, get, send, sendJson } from "../house/send.js";
import { Edit } from "./edit.js";
import { Queue } from "./queue.js";
import { trial, trySample } from "./trial.js";

const LOOK_EVERY_MS = 1500;
const list = document.querySelector("#cues");
const state = { cues: [], findings: [], narrowed: {}, also: {}, samples: {}, kinds: {}, fields: {}, queue: {}, chosen: null };

follow(() => {});

const edit = new Edit(document.querySelector("#edit"), state, {
  changed: take,
  removed(cue, sheet) {
    state.chosen = null;
    take(sheet);
    say(`“${cue.name}” is off the sheet.`, { undo: () => attempt(async () => take(await sendJson("/dress/cues/put-back", cue))) });
  },
  close,
  trial: (cue) => trySample(cue.id, state.samples[cue.id]),
});
const queue = new Queue({ kinds: () => state.kinds, asks: () => state.queue.approve, changed: take });

function take(sheet) {
  Object.assign(state, sheet);
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
  edit.show(state.cues.find((cue) => cue.id === state.chosen));
}

function row(cue) {
  const made = make("button", "cue-row");
  made.type = "button";
  made.dataset.cue = cue.id;
  made.classList.toggle("off", !cue.on);
  made.setAttribute("aria-pressed", cue.id === state.chosen);
  const also = state.also[cue.id];
  made.append(
    make("span", "cue-name", make("b", "", cue.name), make("span", "said", state.narrowed[cue.id])),
    make("span", "cue-plays", make("span", "cue-words", cue.words), also ? make("span", "said", also) : null),
    make("span", "figure", `${cue.length_s} s`),
  );
  for (const [id, why] of state.findings) if (id === cue.id) made.append(make("span", "chip mind", icon("info"), why));
  made.addEventListener("click", () => {
    state.chosen = cue.id;
    draw();
  });
  return made;
}

async function addTo(kind) {
  const told = await attempt(() => send("/dress/cues/cues", { kind }));
  if (!told) return;
  state.chosen = told.cues.at(-1).id;
  take(told);
}

// What plays in the drafts only is heard here.
function hear(name) {
  const cue = state.cues.find((one) => one.name === name);
  if (!cue?.sound) return;
  const audio = new Audio(`/sounds/${cue.sound}.ogg`);
  audio.volume = cue.volume / 100;
  audio.play().catch(() => say("This browser plays no sound before something was pressed.", { bad: true }));
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
  take(await get("/dress/cues/sheet"));
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
