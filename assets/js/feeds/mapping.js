// Which tag of a server carries what: data of the feed.
import { make } from "../house/elements.js";
import { say } from "../house/messages.js";
import { attempt, get, Refused, send } from "../house/send.js";

const sheet = document.querySelector("#mapping");
const form = document.querySelector("#mapping-form");
const error = document.querySelector("#mapping-error");
let feedId = null;

function field({ entry, label, keys }) {
  const input = make("input", "input");
  input.name = entry;
  input.id = `map-${entry}`;
  input.value = keys;
  input.spellcheck = false;
  const words = make("label", "label", label);
  words.htmlFor = input.id;
  return make("div", "half", words, input);
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
    await send(`/feeds/${feedId}/mapping`, new FormData(form));
    sheet.close();
    say("The tags are read this way from now on.");
  } catch (refused) {
    if (!(refused instanceof Refused)) throw refused;
    error.hidden = false;
    error.textContent = refused.message;
    form.elements[refused.field]?.focus();
  }
});
