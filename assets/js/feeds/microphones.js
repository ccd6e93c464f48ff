// The links by which microphones come into a room: one for each person, and one at which a name is chosen.
import { copy } from "../house/copying.js";
import { button, make } from "../house/elements.js";
import { say } from "../house/messages.js";
import { attempt, get, Refused, send } from "../house/send.js";

const at = (id) => document.querySelector(id);
const sheet = at("#microphones");
const error = at("#microphones-error");
const name = at("#microphone-name");
const LOOK_MS = 2000;
let feedId = null;
let known = null;

function person({ id, name: called, link, there }) {
  const again = button(
    "",
    "refresh-cw",
    () => change(`/${id}/anew`, {}, `${called} has another link; the one before is void.`),
    "button plain",
  );
  again.setAttribute("aria-label", `Another link for ${called}`);
  const away = button("", "trash-2", () => change(`/${id}/remove`, {}, `${called} is taken away.`), "button plain");
  away.setAttribute("aria-label", `Take ${called} away`);
  return make(
    "li",
    "",
    make("bdi", "", called),
    make("span", there ? "chip well" : "chip", there ? "is there" : "not there"),
    button("Copy the link", "copy", () => copy(link, `The link of ${called}`), "button push"),
    again,
    away,
  );
}

// Drawn anew only where something is otherwise, so that focus stays where it is.
function draw(told) {
  if (JSON.stringify(told) === known) return;
  known = JSON.stringify(told);
  at("#microphones-title").textContent = told.name;
  const list = at("#microphone-list");
  const focus = [...list.querySelectorAll("button")].indexOf(document.activeElement);
  list.replaceChildren(...told.people.map(person));
  list.querySelectorAll("button")[focus]?.focus();
  at("#microphone-cast").replaceChildren(...told.cast.map(([, called]) => new Option(called)));
  at("#microphone-anybody").checked = Boolean(told.anybody);
  at("#microphone-anybody-copy").hidden = !told.anybody;
}

// path: behind that of the room's links
async function change(path, values, done) {
  error.hidden = true;
  try {
    draw(await send(`/feeds/${feedId}/microphones${path}`, values));
    if (done) say(done);
    return true;
  } catch (refused) {
    if (!(refused instanceof Refused)) throw refused;
    error.hidden = false;
    error.textContent = refused.message;
  }
}

async function look() {
  const told = await get(`/feeds/${feedId}/microphones`).catch(() => null);
  if (told && sheet.open) draw(told);
}

export async function openMicrophones(id) {
  feedId = id;
  known = null;
  error.hidden = true;
  const told = await attempt(() => get(`/feeds/${id}/microphones`));
  if (!told) return;
  draw(told);
  sheet.showModal();
  const looking = setInterval(() => (sheet.open ? look() : clearInterval(looking)), LOOK_MS);
}

at("#microphones-close").addEventListener("click", () => sheet.close());
at("#microphones-form").addEventListener("submit", async (event) => {
  event.preventDefault();
  const called = name.value.trim();
  const [member] = JSON.parse(known).cast.find(([, one]) => one === called) ?? [];
  if (await change("", member ? { member } : { name: called }, called && `${called} has a link.`)) name.value = "";
  name.focus();
});
at("#microphone-anybody").addEventListener("change", ({ target }) => change("/anybody", { on: target.checked ? "1" : "0" }));
at("#microphone-anybody-copy").addEventListener("click", () => copy(JSON.parse(known).anybody, "The link for anybody"));
