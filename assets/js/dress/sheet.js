// A small form that asks for one or two things, and stays open while the answer is refused.
import { make } from "../house/elements.js";
import { Refused } from "../house/send.js";

const sheet = document.querySelector("#ask");
const form = document.querySelector("#ask-form");
const error = document.querySelector("#ask-error");
let act = null;

function field({ name, label, value = "", placeholder = "", type = "text", checked = false }) {
  const input = make("input", type === "checkbox" ? "" : "input");
  Object.assign(input, { name, id: `ask-${name}`, type, autocomplete: "off", spellcheck: false });
  if (type === "file") input.accept = "image/*";
  if (type === "checkbox") {
    input.checked = checked;
    input.value = "1";
    input.setAttribute("role", "switch");
    return make("div", "wide", make("label", "switch", input, ` ${label}`));
  }
  if (type !== "file") Object.assign(input, { value, placeholder });
  const words = make("label", "label", label);
  words.htmlFor = input.id;
  return make("div", "wide", words, input);
}

// work(values): sends what was entered; may throw Refused. extra: elements that stand below the fields.
export function ask({ title, about = "", fields, button, work, extra = [] }) {
  document.querySelector("#ask-title").textContent = title;
  document.querySelector("#ask-about").textContent = about;
  document.querySelector("#ask-do").textContent = button;
  document.querySelector("#ask-fields").replaceChildren(...fields.map(field), ...extra);
  error.hidden = true;
  act = work;
  sheet.showModal();
}

export function closeSheet() {
  sheet.close();
}

document.querySelector("#ask-close").addEventListener("click", closeSheet);
form.addEventListener("submit", async (event) => {
  event.preventDefault();
  error.hidden = true;
  try {
    await act(new FormData(form));
    closeSheet();
  } catch (refused) {
    if (!(refused instanceof Refused)) throw refused;
    error.hidden = false;
    error.textContent = refused.message;
    form.elements[refused.field]?.focus?.();
  }
});
