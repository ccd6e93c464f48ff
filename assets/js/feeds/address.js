// Where a feed reads: what its description asks, today's number or another channel.
import { button, make } from "../house/elements.js";
import { Refused, send } from "../house/send.js";

export class AddressForm {
  constructor(feed, leave) {
    this.id = feed.id;
    this.fields = feed.asks.map((ask) => this.field(ask));
    this.error = make("p", "error-line");
    this.error.setAttribute("role", "alert");
    this.why = make("p", "said");
    this.anyway = button("Keep it anyway", "", () => this.ask({ anyway: "1" }), "button");
    this.leave = button("Leave it as it was", "", leave, "button plain");
    this.do = make("button", "button do", "Read there");
    this.anyway.hidden = true;
    const row = make("div", "address-row", ...this.fields.map(({ element }) => element), this.do, this.anyway, this.leave);
    this.element = make("form", "address", row, this.why, this.error);
    this.element.setAttribute("aria-label", `Where ${feed.name} reads`);
    this.element.addEventListener("submit", (event) => {
      event.preventDefault();
      this.ask();
    });
  }

  // Of each broadcast another one: the last is of no use any more.
  field({ field, label, example, each, value }) {
    const input = make("input", "input figure");
    Object.assign(input, { name: field, placeholder: example ?? "", autocomplete: "off", spellcheck: false });
    input.setAttribute("autocapitalize", "off");
    if (value && !each) input.value = value;
    return { input, element: make("label", "", make("span", "label", label), input) };
  }

  // wanted: whether the feed itself asks for it
  tell(feed, wanted) {
    this.why.textContent = wanted ? feed.reason : "";
    this.leave.hidden = wanted;
  }

  async ask(more = {}) {
    this.error.textContent = "";
    this.anyway.hidden = true;
    this.do.disabled = true;
    const values = Object.fromEntries(this.fields.map(({ input }) => [input.name, input.value]));
    try {
      await send(`/feeds/${this.id}/address`, { ...values, ...more });
      if (!this.leave.hidden) this.leave.click();
    } catch (refused) {
      if (!(refused instanceof Refused)) throw refused;
      this.error.textContent = refused.message;
      this.anyway.hidden = !refused.anyway;
      this.fields.find(({ input }) => input.name === refused.field)?.input.focus();
    } finally {
      this.do.disabled = false;
    }
  }
}
