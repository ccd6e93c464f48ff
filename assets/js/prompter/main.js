import { button, icon, make } from "../house/elements.js";
import { cutWordsTold } from "../house/cut.js";
import { keepKeyboard } from "../house/keyboard.js";
import { keys } from "../house/keys.js";
import { unpressed } from "../house/pressed.js";
import { say } from "../house/messages.js";
import { attempt } from "../house/send.js";
import { markOf } from "../link/marks.js";
import { Socket } from "../link/socket.js";
import { Actions } from "./actions.js";
import { Answering } from "./answering.js";
import { asOne } from "./as_one.js";
import { Chime } from "./chime.js";
import { Column } from "./column.js";
import { Cues, OWN_KEYS } from "./cues.js";
import { Deeds, sentence } from "./deeds.js";
import { ask, setup } from "./door.js";
import { Held } from "./held.js";
import { keep, kept } from "./kept.js";
import { Lines } from "./lines.js";
import { OwnMicrophone } from "./microphone.js";
import { Side } from "./side.js";
import { smallWindow } from "./small.js";
import { Speech } from "./speech.js";
import { Voices } from "./voices.js";

const look = { size: 16, dense: false, time: "minutes", off: true, voices: true, feeds: null, ...kept("look") };
// Laid over something else it is to be read, there and then: how it looks is said by its link, and nothing sounds twice.
const { over } = setup;
if (over) {
  Object.assign(look, { size: over.size, dense: true, time: "none", off: false });
  document.body.style.setProperty("--over-ground", `${over.ground}%`);
}
const state = { pins: [], large: null, ready: false };
const GONE = new Set(["pulled", "deleted"]);
const lines = new Lines();
const deeds = new Deeds();
const side = new Side({ deeds });
const speech = new Speech();
const chime = new Chime();
const answering = new Answering();
const actions = new Actions({
  pins: () => state.pins,
  large: () => state.large,
  open: (what, card) => side.open(what, card),
  answerTo: (card) => answering.to(card),
  speak: (card) => speech.say(card),
});
// Where they could not be read, as while the database is away, that is said once, and not with every move of the column.
const OLDER_AGAIN_MS = 15000;
let olderAt = 0;
async function olderThan(id) {
  if (performance.now() < olderAt) return [];
  const found = await attempt(() => ask(`/lines?before=${id}`));
  if (!found) olderAt = performance.now() + OLDER_AGAIN_MS;
  return found?.lines ?? [];
}
const column = new Column(lines, {
  choose: (card, row) => actions.show(card, row),
  wantOlder: async (id) => lines.add(await olderThan(id)),
});
// Where none is seen, it is said whether there is any.
const someCame = () => column.scroller.classList.toggle("some-came", lines.all.length > 0);
lines.heard({ newer: someCame, gone: someCame });
const voices = new Voices();
if (setup.hears) new OwnMicrophone();
const cues = new Cues();
const held = new Held(lines, (id) => column.goTo(id));

function draw() {
  document.body.style.setProperty("--size", `${look.size}px`);
  document.body.classList.toggle("dense", look.dense);
  document.body.classList.toggle("timeless", look.time === "none");
  column.options = { seconds: look.time === "seconds" };
  voices.show(look.voices);
  if (!over) keep("look", look);
}

function pins(frame) {
  if (!frame.pins) return;
  state.pins = frame.pins.map((card) => card.i);
  state.large = frame.large;
  held.pins(frame.pins, frame.large);
  actions.show(actions.card, column.rowOf(actions.card?.i));
}

function take(frame) {
  if (frame.from !== undefined) lines.only(frame.from, frame.lines);
  const fresh = (frame.lines ?? []).filter((card) => !lines.byId.has(card.i));
  for (const card of frame.lines ?? []) if (lines.byId.has(card.i)) lines.change(card.i, card);
  lines.add(frame.lines ?? []);
  for (const [id, what] of Object.entries(frame.states ?? {})) {
    lines.change(id, { s: what });
    if (GONE.has(what)) speech.gone(Number(id));
  }
  for (const [id, marks] of Object.entries(frame.marks ?? {})) lines.change(id, { mk: marks });
  if (frame.voices) voices.take(frame.voices);
  if (frame.cues) cues.take(frame.cues);
  if (frame.held) held.take(frame.held);
  pins(frame);
  if (frame.deeds) {
    deeds.take(frame.deeds);
    if (state.ready) for (const deed of frame.deeds.slice(-3)) tell(deed);
  }
  if (state.ready && !over) {
    speech.heard(fresh);
    chime.heard(fresh);
  }
  state.ready = true;
}

// What others do is seen as they do it.
function tell(deed) {
  if (deed.by === setup.actor) return;
  say(deed.undone ? `${deed.undone} took back: ${sentence(deed)}` : sentence(deed));
}

new Socket(`${setup.base}/live`, {
  frame: (frame) => unpressed(() => take(frame)),
  missed: (frames) => unpressed(() => take(asOne(frames))),
  replaced: () => location.reload(),
});

// What the chats are: told with the desk's report where one is signed in, else with the prompter's own setup.
function feeds(all, answers) {
  const choice = document.querySelector("#feed-choice");
  const known = all.map((feed) => `${feed.id}${feed.name}`).join();
  answering.tell(all, answers);
  if (choice.dataset.known === known) return;
  choice.dataset.known = known;
  choice.replaceChildren(
    ...all.map((feed) => {
      const box = make("input");
      Object.assign(box, { type: "checkbox", value: feed.id, checked: !look.feeds || look.feeds.includes(feed.id) });
      box.setAttribute("aria-label", `Show ${feed.name}`);
      box.addEventListener("change", () => {
        const chosen = [...choice.querySelectorAll("input:checked")].map((one) => Number(one.value));
        look.feeds = chosen.length === all.length ? null : chosen;
        draw();
        lines.choose({ feeds: look.feeds && new Set(look.feeds) });
      });
      const label = make("label", "", box, markOf(feed.mark));
      label.title = feed.name;
      return label;
    }),
  );
}
setInterval(
  () =>
    attempt(async () => {
      const told = await ask("/feeds");
      feeds(told.feeds, told.answers);
    }),
  4000,
);
attempt(async () => {
  const told = await ask("/feeds");
  feeds(told.feeds, told.answers);
});

// The sheets.
const jumps = {
  mention: ["1", "Lines that name you"],
  question: ["2", "Questions"],
  first: ["3", "First lines"],
  supporter: ["4", "Supporters"],
};
const jump = (kind) => column.jump(kind) || say("There is none among the lines that are here.");
document.querySelector("#jump-list").append(...Object.keys(jumps).map((kind) => button("", null, () => jump(kind), "jump")));
for (const [index, element] of [...document.querySelectorAll(".jump")].entries()) {
  const [key, words] = Object.values(jumps)[index];
  element.append(make("span", "", `Jump to: ${words.toLowerCase()}`), make("kbd", "", key));
}
document.querySelector("#find-form").addEventListener("submit", (event) => {
  event.preventDefault();
  const text = document.querySelector("#find").value.trim();
  const person = document.querySelector("#find-person").value.trim();
  document.querySelector("#jumps").open = false;
  attempt(async () => {
    if (text === "" && person !== "")
      return side.people((await ask(`/people?${new URLSearchParams({ name: person })}`)).people, `Called “${person}”`);
    side.found((await ask(`/find?${new URLSearchParams({ text, person })}`)).lines, `Lines with “${text}”`);
  });
});

function lookRow(label, name, choices) {
  const field = make("select", "", ...Object.entries(choices).map(([value, words]) => new Option(words, value)));
  field.value = String(look[name]);
  field.setAttribute("aria-label", label);
  field.addEventListener("change", () => {
    look[name] = { true: true, false: false }[field.value] ?? (name === "size" ? Number(field.value) : field.value);
    draw();
    lines.choose({ showOff: look.off });
  });
  return make("label", "sheet-row", label, make("div", "select", field));
}
document
  .querySelector("#look-sheet")
  .append(
    lookRow("Text", "size", { 13: "small", 16: "as it comes", 20: "large", 26: "very large", 34: "to read from afar" }),
    lookRow("Lines", "dense", { false: "apart", true: "close together" }),
    lookRow("Time", "time", { minutes: "minutes", seconds: "seconds", none: "none" }),
    lookRow("What was kept off", "off", { true: "shown, dimmed", false: "not shown" }),
    lookRow("Who talks", "voices", { true: "in a strip", false: "not shown" }),
    ...voices.rows(),
  );
smallWindow(document.querySelector("#open-small"));
const more = document.querySelector("#more-sheet");
more.prepend(
  button("What was done", "history", () => side.open("done"), ""),
  ...(setup.role === "owner" || setup.role === "director"
    ? [button("Prompters without signing in", "link-2", () => side.open("links"), "")]
    : []),
);
if (setup.signed_in) {
  const home = make("a", "", icon("plug-zap"), "To the stations");
  home.href = "/feeds";
  more.prepend(home);
}
for (const menu of document.querySelectorAll(".menu-sheet:not(#microphone-sheet)"))
  menu.addEventListener("click", (event) => event.target.closest("button, a") && event.target.closest("details").removeAttribute("open"));

draw();
lines.showOff = look.off;
lines.feeds = look.feeds && new Set(look.feeds);
const wanted = new URLSearchParams(location.search).get("line");
if (wanted) side.open("trace", { i: Number(wanted) });

const table = {
  ArrowUp: ["The line before", () => column.step(-1)],
  ArrowDown: ["The line after", () => column.step(1)],
  End: ["To the newest", () => column.toEnd()],
  x: ["Pull", () => actions.key("x")],
  v: ["Let go", () => actions.key("v")],
  l: ["Leave its person out", () => actions.key("l")],
  n: ["Pin, or unpin", () => actions.key("n")],
  g: ["Large on the stage, or off it", () => actions.key("g")],
  a: ["Answered, or not", () => actions.key("a")],
  e: ["Read, or not", () => actions.key("e")],
  r: ["Answer its person", () => actions.key("r")],
  h: ["Shout-out: its person’s card", () => actions.key("h")],
  w: ["Where this line went", () => actions.key("w")],
  p: ["Its person", () => actions.key("p")],
  s: ["Say it", () => actions.key("s")],
  z: ["Take back what was done last", () => deeds.undoLast()],
  d: ["What was done", () => side.open("done")],
  1: ["Jump to a line that names you", () => jump("mention")],
  2: ["Jump to a question", () => jump("question")],
  3: ["Jump to a first line", () => jump("first")],
  4: ["Jump to a supporter", () => jump("supporter")],
  ".": ["Skip what is being read aloud", () => speech.skip()],
  ",": ["Stop reading aloud", () => speech.stop()],
  "/": ["Find a line or a person", () => openFind()],
  c: ["Write an answer", () => answering.write()],
  Escape: ["Close what is open", () => side.close()],
};
for (const [index, key] of OWN_KEYS.entries()) table[key] = [`Play your own cue ${index + 1}`, () => cues.play(index)];
function openFind() {
  document.querySelector("#jumps").open = true;
  document.querySelector("#find").focus();
}
if (!setup.acts) for (const key of ["x", "v", "l", "n", "g", "a", "e", "r", "h", "z", "c", ...OWN_KEYS]) delete table[key];
cutWordsTold();
keepKeyboard();
keys(table);
