// Today's broadcast number: typed, pasted, or found.
import { button, make } from "../house/elements.js";
import { Refused, send } from "../house/send.js";

export class BroadcastForm {
  constructor(feed) {
    this.number = this.field("number", "e.g. 7741-0392", `Broadcast number of ${feed.name}`);
    this.channel = this.field("channel", "channel", `Channel of ${feed.name}`);
    this.channel.hidden = true;
    this.error = make("p", "error-line");
    this.error.setAttribute("role", "alert");
    this.why = make("p", "said");
    const connect = make("button", "button do", "Connect");
    const find = button("Find it for me", "search", () => this.find(), "button plain");
    this.element = make("form", "broadcast", make("div", "broadcast-row", this.number, this.channel, connect, find), this.why, this.error);
    this.id = feed.id;
    this.element.addEventListener("submit", (event) => {
      event.preventDefault();
      if (this.number.value.trim() || this.channel.hidden) this.ask("number", { number: this.number.value });
      else this.find();
    });
  }

  field(name, placeholder, label) {
    const input = make("input", "input figure");
    Object.assign(input, { name, placeholder, autocomplete: "off", spellcheck: false });
    input.setAttribute("aria-label", label);
    return input;
  }

  tell(feed) {
    this.why.textContent = feed.reason;
    this.known = feed.channel;
  }

  find() {
    if (this.known || this.channel.value.trim()) return this.ask("find", { channel: this.channel.value });
    this.channel.hidden = false;
    this.channel.focus();
    this.error.textContent = "On which channel is it? It is remembered, so that tomorrow’s number is found by itself.";
  }

  async ask(what, values) {
    this.error.textContent = "";
    try {
      await send(`/feeds/${this.id}/${what}`, values);
    } catch (refused) {
      if (!(refused instanceof Refused)) throw refused;
      this.error.textContent = refused.message;
      this.channel.hidden &&= refused.field !== "channel";
    }
  }
}
