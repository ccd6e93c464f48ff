const body = document.querySelector("#members");
const scripts = document.querySelector("#scripts select");
const speaker = document.querySelector("#sound select");
const rows = new Map();
const MARKS = ["muted", "deafened", "away", "sharing"];

const send = (values) => fetch("/voices", { method: "POST", body: values instanceof FormData ? values : new URLSearchParams(values) });

function make(name, props = {}, ...children) {
  const element = Object.assign(document.createElement(name), props);
  element.append(...children);
  return element;
}

function row(id) {
  const known = rows.get(id);
  if (known) return known;
  const name = make("td", { className: "who" });
  const room = make("select", {}, new Option("The hides", "hides"), new Option("Night shift", "night"), new Option("nowhere", ""));
  room.setAttribute("aria-label", "Room");
  room.addEventListener("change", () => send({ do: "move", who: id, room: room.value }));
  const heard = make("meter", { min: 0, max: 127 });
  const talk = make("button", { type: "button", textContent: "Talk" });
  talk.dataset.talk = id;
  const hold = (on) => () => send({ do: "talk", who: id, on: on ? "1" : "0" });
  talk.addEventListener("pointerdown", hold(true));
  for (const end of ["pointerup", "pointerleave", "blur"]) talk.addEventListener(end, hold(false));
  talk.addEventListener("keydown", (event) => event.key === " " && !event.repeat && hold(true)());
  talk.addEventListener("keyup", (event) => event.key === " " && hold(false)());
  const slider = make("input", { type: "range", min: 0, max: 127, value: 0, title: "As loud as this, in dB over silence" });
  slider.setAttribute("aria-label", "Loudness");
  slider.addEventListener("input", () =>
    send({ do: "slide", who: id, level: slider.value === "0" ? "" : String(127 - Number(slider.value)) }),
  );
  const marks = MARKS.map((mark) => {
    const box = make("input", { type: "checkbox" });
    box.addEventListener("change", () => send({ do: "mark", who: id, mark, on: box.checked ? "1" : "0" }));
    return [mark, box, make("label", {}, box, ` ${mark} `)];
  });
  const rename = make("button", { type: "button", textContent: "Rename" });
  rename.addEventListener("click", () => {
    const given = prompt("Another name", name.textContent);
    if (given !== null) send({ do: "rename", who: id, name: given });
  });
  const element = make(
    "tr",
    {},
    name,
    make("td", {}, room),
    make("td", {}, heard),
    make("td", {}, talk, slider, ...marks.map(([, , label]) => label), rename),
  );
  body.append(element);
  speaker.append(new Option(id, id));
  const made = { name, room, heard, marks };
  rows.set(id, made);
  return made;
}

async function refresh() {
  const { script, members } = await (await fetch("/voices")).json();
  if (document.activeElement !== scripts) scripts.value = script ?? "";
  for (const member of members) {
    const { name, room, heard, marks } = row(member.id);
    name.textContent = member.name;
    name.title = member.name;
    if (document.activeElement !== room) room.value = member.room ?? "";
    heard.value = 127 - (member.heard ?? 127);
    for (const [mark, box] of marks) box.checked = member[mark];
  }
}

scripts.addEventListener("change", () => send({ do: "play", script: scripts.value }));
document.querySelector("#join").addEventListener("submit", (event) => {
  event.preventDefault();
  const { name } = event.target.elements;
  send({ do: "join", who: `guest-${Date.now()}`, name: name.value });
  name.value = "";
});
document.querySelector("#sound").addEventListener("submit", (event) => {
  event.preventDefault();
  const values = new FormData(event.target);
  values.set("do", "sound");
  send(values);
});
refresh();
setInterval(() => refresh().catch(() => {}), 250);
