// The people of the voice rooms: faces, short names, and pictures of what they do.
import { follow } from "../house/desk.js";
import { dropping } from "../house/dropping.js";
import { button, icon, make } from "../house/elements.js";
import { keys } from "../house/keys.js";
import { say } from "../house/messages.js";
import { attempt, get, Refused, send, sendFiles } from "../house/send.js";
import { count } from "../house/words.js";

const WORDS = JSON.parse(document.querySelector("[data-pictures]").dataset.pictures);
const list = document.querySelector("#cast");
const sheet = document.querySelector("#picture-sheet");
const form = document.querySelector("#picture-form");
const error = document.querySelector("#picture-error");
const dropHere = document.querySelector("#drop-here");
const state = { members: [], open: null };

follow(() => {});

function take({ members }) {
  state.members = members;
  document.querySelector("#empty").hidden = members.length > 0;
  list.hidden = members.length === 0;
  const there = members.filter((member) => member.there).length;
  document.querySelector("#summary").textContent =
    members.length === 0 ? "" : `${count(members.length, "person", "people")}, ${there} in a room now`;
  if (!list.contains(document.activeElement) || document.activeElement.tagName !== "INPUT") list.replaceChildren(...members.map(row));
}

function row(member) {
  const made = make("div", "cast-row", tile(member, "face"), make("div", "cast-about-one", who(member), settings(member)));
  const states = Object.keys(WORDS).filter((which) => which !== "face");
  const off = button("", "trash-2", () => attempt(async () => take(await send(`/dress/cast/${member.id}/remove`))), "button plain");
  off.setAttribute("aria-label", `Take ${member.name} off the cast`);
  made.append(make("div", "cast-states", ...states.map((which) => tile(member, which))), off);
  made.dataset.member = member.key;
  return made;
}

function who({ name, there }) {
  return make(
    "div",
    "cast-who",
    make("bdi", "cast-name", name),
    make("span", `chip ${there ? "well" : ""}`, there ? "in the room" : "not there"),
  );
}

// What can be set about somebody.
function settings(member) {
  const short = setting(member, "short", `Short name of ${member.name}`, {
    value: member.short ?? "",
    maxLength: 60,
    placeholder: "Short name",
  });
  short.className = "input short";
  const title = member.colour ? "Their colour" : "No colour of their own yet";
  const colour = setting(member, "colour", `Colour of ${member.name}`, { type: "color", value: member.colour ?? "#8899a6", title });
  colour.className = "cast-colour";
  const host = make("input");
  Object.assign(host, { type: "radio", name: "host", checked: member.host });
  host.addEventListener("change", () => keep(member, { host: "1" }));
  const made = make("div", "cast-set", short, colour, make("label", "cast-host", host, "the host"));
  if (member.missing.length > 0)
    made.append(make("span", "chip mind", icon("image-off"), `no picture for ${member.missing.join(" and ")}`));
  return made;
}

function setting(member, name, label, values) {
  const field = make("input");
  Object.assign(field, values);
  field.setAttribute("aria-label", label);
  field.addEventListener("change", () => keep(member, { [name]: field.value }));
  return field;
}

// A picture that is there, or the place for one.
function tile(member, which) {
  const made = make("button", `cast-tile ${which}`);
  made.type = "button";
  made.dataset.which = which;
  made.setAttribute("aria-label", `${WORDS[which]} of ${member.name}`);
  const picture = member.pictures[which];
  if (picture) {
    const image = make("img");
    image.alt = "";
    image.src = `/pictures/${picture}-2.webp`;
    made.append(image);
  } else made.append(icon(which === "face" ? "user-round" : "plus"));
  made.append(make("span", "", WORDS[which]));
  made.addEventListener("click", () => open(member, which));
  made.addEventListener("dragover", (event) => event.preventDefault());
  made.addEventListener("drop", (event) => {
    const [file] = event.dataTransfer.files;
    if (!file || event.dataTransfer.files.length > 1) return;
    event.preventDefault();
    event.stopPropagation();
    dropHere.hidden = true;
    const values = new FormData();
    values.set("file", file);
    attempt(async () => take(await sendFiles(`/dress/cast/${member.id}/pictures/${which}`, values)));
  });
  return made;
}

const keep = (member, values) => attempt(async () => take(await send(`/dress/cast/${member.id}`, values)));

function open(member, which) {
  state.open = { member, which };
  form.reset();
  error.hidden = true;
  document.querySelector("#picture-title").textContent = `${WORDS[which]}: ${member.short ?? member.name}`;
  document.querySelector("#picture-off").hidden = !member.pictures[which];
  sheet.showModal();
}

async function put(values) {
  try {
    take(await sendFiles(`/dress/cast/${state.open.member.id}/pictures/${state.open.which}`, values));
    sheet.close();
  } catch (refused) {
    if (!(refused instanceof Refused)) throw refused;
    error.hidden = false;
    error.textContent = refused.message;
  }
}

form.addEventListener("submit", (event) => {
  event.preventDefault();
  const values = new FormData(form);
  if (values.get("file")?.size === 0) values.delete("file");
  put(values);
});
document.querySelector("#picture-off").addEventListener("click", () => put(new FormData()));
document.querySelector("#picture-close").addEventListener("click", () => sheet.close());

async function drop(files) {
  if (files.length === 0) return;
  const values = new FormData();
  for (const file of files) values.append("files[]", file);
  const done = await attempt(() => sendFiles("/dress/cast/drop", values));
  if (!done) return;
  take(done);
  const left = done.left.length > 0 ? ` Nobody is called ${done.left.join(", ")}.` : "";
  say(`${count(done.matched, "picture")} found ${done.matched === 1 ? "its" : "their"} place.${left}`, { bad: done.matched === 0 });
}

const input = document.querySelector("#add-files");
dropping(drop, { opener: document.querySelector("#add-open"), input });

const look = () => attempt(async () => take(await get("/dress/cast/sheet")));
look();
setInterval(look, 5000);
keys({ u: ["Add pictures", () => input.click()] });
