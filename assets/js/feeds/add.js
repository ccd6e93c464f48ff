// The form that adds a feed: it asks for what the chosen kind needs, and has it tried before it counts.
import { say } from "../house/messages.js";
import { Refused, send } from "../house/send.js";
import { markOf } from "../link/marks.js";
import { showInbox } from "./inbox.js";
import { listRooms } from "./rooms.js";

export function addForm() {
  const box = document.querySelector("#add");
  const opener = document.querySelector("#add-open");
  const form = document.querySelector("#add-form");
  const error = document.querySelector("#add-error");
  const anyway = document.querySelector("#add-anyway");
  const trying = document.querySelector("#add-trying");
  const consent = document.querySelector("#add-consent");

  for (const mark of box.querySelectorAll(".kind-mark")) mark.append(markOf(JSON.parse(mark.dataset.mark)));

  // Shows the parts of the form that belong to the chosen kind.
  function choose() {
    const chosen = box.querySelector("input[name=choice]:checked");
    const parts = new Set(chosen.dataset.parts.split(" "));
    if (chosen.dataset.consent) parts.add("consent");
    for (const part of box.querySelectorAll("[data-part]")) part.hidden = !part.dataset.part.split(" ").some((name) => parts.has(name));
    consent.href = chosen.dataset.consent ?? "";
    consent.lastElementChild.textContent = `Ask ${chosen.dataset.name} for permission`;
    if (parts.has("voice")) listRooms(document.querySelector("#rooms"), document.querySelector("#follow"), chosen.value.split(":")[1]);
    document.querySelector("#add-do").textContent = parts.has("inbox") ? "Make the address" : "Connect";
    clear();
  }

  function clear() {
    error.hidden = true;
    anyway.hidden = true;
    for (const field of form.elements) field.classList?.remove("wrong");
  }

  const state = {
    open: false,
    show() {
      state.toggle(true);
      choose();
      box.querySelector("input[name=choice]:checked").focus();
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
    anyway.hidden = !refused.anyway;
    const field = refused.field && form.elements[refused.field];
    field?.classList?.add("wrong");
    field?.focus?.();
  }

  async function connect(more = {}) {
    const values = new FormData(form);
    const [what, key] = values.get("choice").split(":");
    values.delete("choice");
    values.set(what, key);
    for (const [name, value] of Object.entries(more)) values.set(name, value);
    clear();
    trying.hidden = false;
    try {
      const done = await send("/feeds/", values);
      form.reset();
      state.toggle(false);
      say(done.found ?? "It is added.");
      if (done.inbox) showInbox(done.inbox);
    } catch (refused) {
      if (!(refused instanceof Refused)) throw refused;
      refuse(refused);
    } finally {
      trying.hidden = true;
    }
  }

  opener.addEventListener("click", () => (state.open ? state.toggle(false) : state.show()));
  document.querySelector("#empty-add").addEventListener("click", () => state.show());
  document.querySelector("#add-close").addEventListener("click", () => state.toggle(false));
  box.addEventListener("change", ({ target }) => target.name === "choice" && choose());
  anyway.addEventListener("click", () => connect({ anyway: "1" }));
  form.addEventListener("submit", (event) => {
    event.preventDefault();
    connect();
  });
  return state;
}
