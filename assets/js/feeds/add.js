// The form that adds a feed.
import { say } from "../house/messages.js";
import { Refused, send } from "../house/send.js";

export function addForm() {
  const box = document.querySelector("#add");
  const opener = document.querySelector("#add-open");
  const form = document.querySelector("#add-form");
  const error = document.querySelector("#add-error");

  const state = {
    open: false,
    show() {
      state.toggle(true);
      form.elements.paste.focus();
    },
    toggle(open) {
      state.open = open;
      box.hidden = !open;
      opener.setAttribute("aria-expanded", open);
      if (open) document.querySelector("#empty").hidden = true;
    },
  };

  function refuse(refused) {
    error.hidden = false;
    error.textContent = refused.message;
    for (const field of form.elements) field.classList?.remove("wrong");
    const field = form.elements[refused.field];
    field?.classList.add("wrong");
    field?.focus();
  }

  opener.addEventListener("click", () => (state.open ? state.toggle(false) : state.show()));
  document.querySelector("#empty-add").addEventListener("click", () => state.show());
  document.querySelector("#add-close").addEventListener("click", () => state.toggle(false));
  form.addEventListener("submit", async (event) => {
    event.preventDefault();
    error.hidden = true;
    try {
      await send("/feeds/", new FormData(form));
      form.reset();
      state.toggle(false);
      say("Connecting.");
    } catch (refused) {
      if (!(refused instanceof Refused)) throw refused;
      refuse(refused);
    }
  });
  return state;
}
