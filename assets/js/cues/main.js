// The cue sheet: cues by kind of event, one of them being set, events that are tried, and the queue.
import { follow } from "../house/desk.js";
import { button, icon, make } from "../house/elements.js";
import { keys } from "../house/keys.js";
import { say } from "../house/messages.js";
import { attempt, get, send, sendFiles, sendJson } from "../house/send.js";
import { clock } from "../house/words.js";
import { rowFor } from "../stage/properties.js";

const GROUPS = {
  "For which": ["name", "kind", "on"],
  "Only where": [
    "amount_from",
    "amount_to",
    "currency",
    "months_from",
    "months_to",
    "number_from",
    "number_to",
    "feeds",
    "roles",
    "people",
    "first",
  ],
  "Not always": ["share_percent", "cool_down_s", "from_min", "to_min"],
  "What plays": ["words", "message", "length_s", "importance", "joins", "picture_place", "apart"],
  "How it moves": ["motion_in", "held", "motion_out"],
  "Emotes that fly": ["flurry_count", "flurry_emotes", "flurry_way", "flurry_from"],
};
const OPEN = ["For which", "What plays"];
const list = document.querySelector("#cues");
const edit = document.querySelector("#edit");
const state = { cues: [], findings: [], narrowed: {}, kinds: {}, fields: {}, queue: {}, chosen: null, rows: [], now: {} };

follow(() => {});

function take(told) {
  Object.assign(state, told);
  draw();
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
  document.querySelector("#approve").checked = state.queue.approve;
  showEdit();
}

function row(cue) {
  const made = make("button", "cue-row");
  made.type = "button";
  made.dataset.cue = cue.id;
  made.classList.toggle("off", !cue.on);
  made.setAttribute("aria-pressed", cue.id === state.chosen);
  made.append(
    make("span", "cue-name", make("b", "", cue.name), make("span", "said", state.narrowed[cue.id])),
    make("span", "cue-words", cue.words),
    make("span", "figure", `${cue.length_s} s`),
  );
  for (const [id, why] of state.findings) if (id === cue.id) made.append(make("span", "chip mind", icon("info"), why));
  made.addEventListener("click", () => {
    state.chosen = cue.id;
    state.rows = [];
    draw();
  });
  return made;
}

async function addTo(kind) {
  const told = await attempt(() => send("/dress/cues/cues", { kind }));
  if (!told) return;
  state.chosen = told.cues.at(-1).id;
  state.rows = [];
  take(told);
}

const chosen = () => state.cues.find((cue) => cue.id === state.chosen);
const set = (values) => attempt(async () => take(await sendJson(`/dress/cues/cues/${state.chosen}`, values)));

function showEdit() {
  const cue = chosen();
  if (!cue) return edit.replaceChildren(make("p", "said cue-none", "Choose a cue to set it."));
  if (state.rows.length === 0) build();
  document.querySelector("#edit-title").textContent = cue.name;
  for (const made of state.rows) made.show(cue[made.name], {});
  const picture = document.querySelector("#cue-picture");
  picture.replaceChildren(cue.picture ? pictureOf(cue.picture) : icon("image"));
}

function pictureOf(id) {
  const image = make("img");
  Object.assign(image, { alt: "", src: `/pictures/${id}-2.webp` });
  return image;
}

function build() {
  const groups = Object.entries(GROUPS).map(([title, names]) => {
    const made = names.map((name) => rowFor({ ...withWords(state.fields[name]), want: set, gesture: () => null }));
    state.rows.push(...made);
    const box = make("details", "more", make("summary", "", title), make("div", "rows", ...made.map((one) => one.element)));
    box.open = OPEN.includes(title);
    return box;
  });
  const title = make("h2");
  title.id = "edit-title";
  const move = (by, drawing, label) => {
    const made = button(
      "",
      drawing,
      () => attempt(async () => take(await send(`/dress/cues/cues/${state.chosen}/move`, { by }))),
      "button plain",
    );
    made.setAttribute("aria-label", label);
    return made;
  };
  const off = button("", "trash-2", remove, "button plain");
  off.setAttribute("aria-label", "Take this cue off the sheet");
  edit.replaceChildren(
    make(
      "div",
      "cue-edit-head",
      title,
      move("-1", "chevron-left", "Ask it before the one above"),
      move("1", "chevron-right", "Ask it after the one below"),
      off,
    ),
    ...groups,
    pictureRow(),
  );
}

function withWords(field) {
  return field.choices ? { ...field, choices: field.choices.map((choice) => [choice, state.kinds[choice] ?? choice]) } : field;
}

function pictureRow() {
  const shown = make("span", "cue-picture");
  shown.id = "cue-picture";
  const input = make("input");
  Object.assign(input, { type: "file", accept: "image/*", className: "is-sr-only" });
  input.setAttribute("aria-label", "Picture of this cue");
  input.addEventListener("change", () => putPicture(input.files[0]));
  const off = button("Without", "x", () => putPicture(null), "button plain");
  return make("div", "cue-picture-row", shown, make("label", "button", icon("upload"), "Picture or animation", input), off);
}

function putPicture(file) {
  const values = new FormData();
  if (file) values.set("file", file);
  return attempt(async () => take(await sendFiles(`/dress/cues/cues/${state.chosen}/picture`, values)));
}

async function remove() {
  const cue = chosen();
  const told = await attempt(() => send(`/dress/cues/cues/${cue.id}/remove`));
  if (!told) return;
  state.chosen = null;
  take(told);
  say(`“${cue.name}” is off the sheet.`, { undo: () => attempt(async () => take(await sendJson("/dress/cues/put-back", cue))) });
}

// Trying.
document.querySelector("#try").addEventListener("submit", async (event) => {
  event.preventDefault();
  const values = new FormData(event.target);
  values.set("where", event.submitter?.value ?? "draft");
  const told = await attempt(() => send("/dress/cues/try", values));
  if (!told) return;
  const ties = told.ties.length > 0 ? ` “${told.ties.join("”, “")}” fit as well, and stand behind it.` : "";
  const passed = told.passed.length > 0 ? ` ${told.passed.join("; ")}.` : "";
  document.querySelector("#tried").textContent = `${told.cue ? `Plays “${told.cue}”.` : "Nothing plays for that."}${ties}${passed}`;
  look();
});

// The queue.
const act = (what, values = {}) => attempt(async () => show(await send(`/dress/cues/now/${what}`, values)));
document.querySelector("#pause").addEventListener("click", () => act(state.now.paused ? "go_on" : "pause"));
document.querySelector("#skip").addEventListener("click", () => act("skip"));
document.querySelector("#clear").addEventListener("click", () => act("clear"));
document.querySelector("#begin").addEventListener("click", async () => {
  if (await attempt(() => send("/dress/cues/begin"))) say("It is counted from now on.");
});
document
  .querySelector("#approve")
  .addEventListener("change", ({ target }) => attempt(async () => take(await sendJson("/dress/cues/queue", { approve: target.checked }))));

function show(now) {
  state.now = now;
  document.querySelector("#pause span").textContent = now.paused ? "Go on" : "Pause";
  const waiting = now.waiting.map((one) => {
    const line = make("div", "cue-waiting", make("span", "", one.words));
    if (state.queue.approve && !one.approved)
      line.append(button("Let it play", "play", () => act("approve", { id: one.id }), "button plain push"));
    const off = button("", "x", () => act("remove", { id: one.id }), "button plain");
    off.setAttribute("aria-label", `Take “${one.words}” out of the queue`);
    line.append(off);
    return line;
  });
  const playing = now.playing ? [make("div", "cue-waiting playing", icon("play"), make("b", "", now.playing.words))] : [];
  const none = playing.length + waiting.length === 0 ? [make("p", "said", "Nothing waits.")] : [];
  document.querySelector("#queue").replaceChildren(...playing, ...waiting, ...none);
  document.querySelector("#lately").replaceChildren(
    ...now.recent.slice(0, 8).map((one) => {
      const again = button("Play again", "repeat", () => attempt(() => send("/dress/cues/again", { line: one.line })), "button plain push");
      const words = `${one.name}: ${state.kinds[one.kind] ?? one.kind}${one.worth ? `, ${one.worth}` : ""}`;
      return make(
        "div",
        "cue-waiting",
        make("time", "figure", clock(one.at)),
        make("span", "", words),
        make("span", "said", one.cue ? `“${one.cue}”` : "nothing played"),
        again,
      );
    }),
  );
}

const look = () => attempt(async () => show(await get("/dress/cues/now")));
attempt(async () => {
  take(await get("/dress/cues/sheet"));
  document.querySelector("#try-kind").append(...Object.entries(state.kinds).map(([kind, words]) => new Option(words, kind)));
  look();
});
setInterval(look, 1500);
keys({ s: ["Skip what plays", () => act("skip")], p: ["Pause the queue, or go on", () => act(state.now.paused ? "go_on" : "pause")] });
