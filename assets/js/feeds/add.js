// The form that adds a feed: it asks for what the chosen kind needs, and has it tried before it counts.
import { say } from "../house/messages.js";
import { Refused, send } from "../house/send.js";
import { markOf } from "../link/marks.js";
import { showInbox } from "./inbox.js";
import { openMicrophones } from "./microphones.js";
import { listRooms } from "./rooms.js";

// What the button makes where there is nothing to connect to.
const MAKES = [
  ["inbox", "Make the address"],
  ["microphones", "Make the room"],
];

export class AddForm {
  constructor() {
    const at = (id) => document.querySelector(id);
    this.open = false;
    this.box = at("#add");
    this.opener = at("#add-open");
    this.form = at("#add-form");
    this.error = at("#add-error");
    this.anyway = at("#add-anyway");
    this.trying = at("#add-trying");
    for (const mark of this.box.querySelectorAll(".kind-mark")) mark.append(markOf(JSON.parse(mark.dataset.mark)));
    this.opener.addEventListener("click", () => (this.open ? this.toggle(false) : this.show()));
    at("#empty-add").addEventListener("click", () => this.show());
    at("#add-close").addEventListener("click", () => this.toggle(false));
    this.box.addEventListener("change", ({ target }) => target.name === "choice" && this.choose());
    this.anyway.addEventListener("click", () => this.connect({ anyway: "1" }));
    this.form.addEventListener("submit", (event) => {
      event.preventDefault();
      this.connect();
    });
  }

  get chosen() {
    return this.box.querySelector("input[name=choice]:checked");
  }

  show() {
    this.toggle(true);
    this.choose();
    this.chosen.focus();
  }

  showPlatform(key) {
    const choice = this.box.querySelector(`[name=choice][value="platform:${CSS.escape(key)}"]`);
    if (choice) choice.checked = true;
    this.show();
  }

  toggle(open) {
    this.open = open;
    this.box.hidden = !open;
    this.opener.setAttribute("aria-expanded", open);
    if (open) document.querySelector("#empty").hidden = true;
  }

  // Shows the parts of the form that belong to the chosen kind.
  choose() {
    const { chosen } = this;
    const parts = new Set(chosen.dataset.parts.split(" "));
    if (chosen.dataset.consent) parts.add("consent");
    for (const part of this.box.querySelectorAll("[data-part]"))
      part.hidden = !part.dataset.part.split(" ").some((name) => parts.has(name));
    const consent = document.querySelector("#add-consent");
    consent.href = chosen.dataset.consent ?? "";
    consent.lastElementChild.textContent = `Ask ${chosen.dataset.name} for permission`;
    if (parts.has("rooms")) this.listRooms(chosen.value.split(":")[1]);
    this.placeName(parts);
    document.querySelector("#add-do").textContent = MAKES.find(([part]) => parts.has(part))?.[1] ?? "Connect";
    this.clear();
  }

  listRooms(platform) {
    const [root, follow, written] = ["#rooms", "#follow", "#written"].map((id) => document.querySelector(id));
    listRooms({ root, follow, written }, platform);
  }

  // What has no name of its own asks for one at once; for the others it is one of the things that most leave alone.
  placeName(parts) {
    const field = document.querySelector("#name-field");
    const more = document.querySelector("#more-fields");
    if (parts.has("inbox") || parts.has("microphones")) more.closest("details").before(field);
    else more.prepend(field);
  }

  clear() {
    this.error.hidden = true;
    this.anyway.hidden = true;
    for (const field of this.form.elements) field.classList?.remove("wrong");
  }

  refuse(refused) {
    this.error.hidden = false;
    this.error.textContent = refused.message;
    this.anyway.hidden = !refused.anyway;
    const field = refused.field && this.form.elements[refused.field];
    field?.classList?.add("wrong");
    field?.closest?.("details")?.setAttribute("open", "");
    field?.focus?.();
  }

  values(more) {
    const values = new FormData(this.form);
    const [what, key] = values.get("choice").split(":");
    values.delete("choice");
    // What belongs to another choice, and was typed before this one was made, is not meant.
    for (const part of this.form.querySelectorAll("[data-part][hidden]"))
      for (const field of part.querySelectorAll("[name]")) values.delete(field.name);
    if (values.get("own_channel")) values.set("channel", values.get("own_channel"));
    values.delete("own_channel");
    values.set(what, key);
    for (const [name, value] of Object.entries(more)) values.set(name, value);
    return values;
  }

  async connect(more = {}) {
    const values = this.values(more);
    this.clear();
    this.trying.hidden = false;
    try {
      const done = await send("/feeds/", values);
      this.form.reset();
      this.toggle(false);
      say(done.found ?? "It is added.");
      if (done.inbox) showInbox(done.inbox);
      if (done.microphones) openMicrophones(done.id);
    } catch (refused) {
      if (!(refused instanceof Refused)) throw refused;
      this.refuse(refused);
    } finally {
      this.trying.hidden = true;
    }
  }
}
