// Cards of fellow hosts.
import { follow } from "../house/desk.js";
import { button, icon, make } from "../house/elements.js";
import { keys } from "../house/keys.js";
import { say } from "../house/messages.js";
import { attempt, get, send, sendFiles } from "../house/send.js";

const list = document.querySelector("#fellows");
const form = document.querySelector("#add");

follow(() => {});

function take({ fellows }) {
  document.querySelector("#empty").hidden = fellows.length > 0;
  list.hidden = fellows.length === 0;
  list.replaceChildren(...fellows.map(card));
}

const at = (fellow, what = "") => `/dress/fellows/${fellow.id}${what}`;
// The field shows it already, and whoever goes on to the next one is not to lose it.
const keep = (fellow, values) => attempt(() => send(at(fellow), values));

// With a way back.
function remove(fellow, what, words) {
  const undo = () => attempt(async () => take(await send(at(fellow, `${what}/put-back`))));
  return attempt(async () => {
    take(await send(at(fellow, `${what}/remove`)));
    say(words, { undo });
  });
}

function card(fellow) {
  const off = button("", "trash-2", () => remove(fellow, "", `The card of ${fellow.name} is gone.`), "button plain");
  off.setAttribute("aria-label", `Take the card of ${fellow.name} away`);
  const play = button("Show it now", "radio-tower", async () => {
    if (await attempt(() => send(at(fellow, "/play")))) say(`The card of ${fellow.name} is on its way.`);
  });
  const fields = make(
    "div",
    "fellow-fields",
    field(fellow, "name", "Name", 120),
    field(fellow, "words", "A few words", 300),
    field(fellow, "last_shown", "What they last showed", 120),
    field(fellow, "followers", "How many follow them", 20),
  );
  return make("div", "fellow-card", picture(fellow), fields, clips(fellow), make("div", "fellow-do", play, off));
}

function field(fellow, name, label, longest) {
  const input = make("input", "input");
  Object.assign(input, { value: fellow[name] ?? "", maxLength: longest });
  input.setAttribute("aria-label", `${label} of ${fellow.name}`);
  input.addEventListener("change", () => keep(fellow, { [name]: input.value }));
  return make("label", "fellow-field", make("span", "label", label), input);
}

function file(label, accept, taken) {
  const input = make("input");
  Object.assign(input, { type: "file", accept, className: "is-sr-only" });
  input.setAttribute("aria-label", label);
  input.addEventListener("change", () => input.files[0] && taken(input.files[0]));
  return input;
}

const bring = (path, given) => {
  const values = new FormData();
  values.set("file", given);
  return attempt(async () => take(await sendFiles(path, values)));
};

function picture(fellow) {
  const shown = fellow.picture ? make("img") : icon("user-round");
  if (fellow.picture) Object.assign(shown, { alt: "", src: `/pictures/${fellow.picture}-2.webp` });
  const input = file(`Picture of ${fellow.name}`, "image/*", (given) => bring(at(fellow, "/picture"), given));
  return make("label", "fellow-picture", shown, input);
}

function clips(fellow) {
  const rows = fellow.clips.map(([film, name]) => {
    const off = button("", "x", () => remove(fellow, `/clips/${film}`, `“${name}” is no clip of theirs any more.`), "button plain");
    off.setAttribute("aria-label", `Without ${name}`);
    return make("span", "chip", icon("film"), name, off);
  });
  const input = file(`A clip of ${fellow.name}`, "video/*", (given) => {
    say("The clip is being made anew; that takes about as long as it is.");
    bring(at(fellow, "/clips"), given);
  });
  return make("div", "fellow-clips", ...rows, make("label", "button", icon("film"), "Add a clip", input));
}

form.addEventListener("submit", async (event) => {
  event.preventDefault();
  const sheet = await attempt(() => send("/dress/fellows/", { name: form.elements.name.value }));
  if (!sheet) return;
  form.reset();
  take(sheet);
});
attempt(async () => take(await get("/dress/fellows/sheet")));
keys({ n: ["Make a card", () => form.querySelector("input").focus()] });
