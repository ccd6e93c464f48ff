// The first chat: where it is, and one thing to say of it.
import { say } from "../house/messages.js";
import { Refused, send } from "../house/send.js";

export class ChatForm {
  constructor(form) {
    this.form = form;
    const at = (id) => form.querySelector(id);
    this.place = at("#lead-place");
    this.field = at("#lead-address");
    this.label = at("#lead-address-label");
    this.error = at("#lead-chat-error");
    this.anyway = at("#lead-anyway");
    this.place.addEventListener("change", () => this.choose());
    this.anyway.addEventListener("click", () => this.connect({ anyway: "1" }));
    form.addEventListener("submit", (event) => {
      event.preventDefault();
      this.connect();
    });
    this.choose();
  }

  get chosen() {
    return this.place.options[this.place.selectedIndex].dataset;
  }

  choose() {
    const { label, example } = this.chosen;
    this.label.textContent = label;
    this.field.placeholder = example;
    this.clear();
  }

  clear() {
    this.error.hidden = true;
    this.anyway.hidden = true;
    this.field.classList.remove("wrong");
  }

  async connect(more = {}) {
    const { field, values } = this.chosen;
    this.clear();
    this.form.classList.add("busy");
    try {
      const done = await send("/feeds/", { ...JSON.parse(values), [field]: this.field.value.trim(), ...more });
      this.field.value = "";
      say(done.found ?? "It is connected.");
    } catch (refused) {
      if (!(refused instanceof Refused)) throw refused;
      this.refuse(refused);
    } finally {
      this.form.classList.remove("busy");
    }
  }

  refuse({ message, anyway }) {
    this.error.hidden = false;
    this.error.textContent = message;
    this.anyway.hidden = !anyway;
    this.field.classList.add("wrong");
    this.field.focus();
  }
}
