// Which tag of a server carries what: data of the feed.
import { make } from "../house/elements.js";
import { say } from "../house/messages.js";
import { attempt, get, Refused, send } from "../house/send.js";

const sheet = document.querySelector("#mapping");
const form = document.querySelector("#mapping-form");
const error = document.querySelector("#mapping-error");
let feedId = null;

function field({ entry, label, keys, danger, anybody }) {
  const input = make("input", "input");
  input.name = entry;
  input.id = `map-${entry}`;
  input.value = keys;
  input.spellcheck = false;
  const words = make("label", "label", label);
  words.htmlFor = input.id;
  return make("div", "half", words, input, danger ? believed(entry, label, danger, anybody) : null);
}

// Whom to believe: the server alone, or whoever writes.
function believed(entry, label, danger, anybody) {
  const box = make("input");
  Object.assign(box, { type: "checkbox", checked: anybody });
  box.dataset.believe = entry;
  box.setAttribute("aria-label", `${label}: anybody may say it`);
  const told = make("span", "said believe-danger", `Anybody can ${danger}.`);
  told.hidden = !anybody;
  box.addEventListener("change", () => {
    told.hidden = !box.checked;
  });
  return make("div", "believe", make("label", "", box, "anybody may say it"), told);
}

function values() {
  const given = new FormData(form);
  const anybody = [...form.querySelectorAll("[data-believe]:checked")].map((box) => box.dataset.believe);
  given.set("anybody", anybody.join(" "));
  return given;
}

export async function openMapping(id) {
  const mapping = await attempt(() => get(`/feeds/${id}/mapping`));
  if (!mapping) return;
  feedId = id;
  error.hidden = true;
  document.querySelector("#mapping-about").textContent =
    `${mapping.name}, ${mapping.address}. Several tags may be named; the first that a line carries counts.`;
  document.querySelector("#mapping-fields").replaceChildren(...mapping.entries.map(field));
  sheet.showModal();
}

document.querySelector("#mapping-close").addEventListener("click", () => sheet.close());
form.addEventListener("submit", async (event) => {
  event.preventDefault();
  try {
    await send(`/feeds/${feedId}/mapping`, values());
    sheet.close();
    say("The tags are read this way from now on.");
  } catch (refused) {
    if (!(refused instanceof Refused)) throw refused;
    error.hidden = false;
    error.textContent = refused.message;
    form.elements[refused.field]?.focus();
  }
});
