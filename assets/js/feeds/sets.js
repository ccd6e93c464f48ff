// Sets of emotes that a described platform hands out: one tick each.
import { make } from "../house/elements.js";
import { attempt, get, send } from "../house/send.js";

const at = (id) => document.querySelector(id);
const sheet = at("#sets");
const list = at("#set-list");
const LOOK_MS = 1500;
let feedId = null;
let known = null;

function row({ name, label, on, said, count }) {
  const box = make("input");
  Object.assign(box, { type: "checkbox", checked: on });
  box.role = "switch";
  box.addEventListener("change", async () =>
    draw(await attempt(() => send(`/feeds/${feedId}/sets/${name}`, { on: box.checked ? "1" : "0" }))),
  );
  const told = on ? (said ?? "being fetched …") : "";
  return make("li", "", make("label", "switch", box, ` ${label}`), make("span", "said", count && said ? `${count} emotes, ${told}` : told));
}

// Drawn anew only where something is otherwise, so that focus stays where it is.
function draw(told) {
  if (!told || JSON.stringify(told) === known) return;
  known = JSON.stringify(told);
  const focus = [...list.querySelectorAll("input")].indexOf(document.activeElement);
  list.replaceChildren(...told.sets.map(row));
  list.querySelectorAll("input")[focus]?.focus();
}

export async function openSets(id) {
  feedId = id;
  known = null;
  const told = await attempt(() => get(`/feeds/${id}/sets`));
  if (!told) return;
  draw(told);
  sheet.showModal();
  const looking = setInterval(async () => {
    if (!sheet.open) return clearInterval(looking);
    draw(await get(`/feeds/${feedId}/sets`).catch(() => null));
  }, LOOK_MS);
}
