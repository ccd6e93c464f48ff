// How long lines are held, for all or by role, and when what a rule holds leaves by itself.
import { make } from "../house/elements.js";
import { attempt, sendJson } from "../house/send.js";
import { fill } from "../stage/fields.js";

const ROLES = { host: "Host", moderator: "Moderators", guest: "Guests of honour", subscriber: "Subscribers", supporter: "Supporters" };
const LEAVES = { "": "waits for a person", 30000: "leaves after 30 s", 120000: "leaves after 2 min", 600000: "leaves after 10 min" };

export class Hold {
  constructor(hold) {
    this.range = document.querySelector("#hold-range");
    this.typed = document.querySelector("#hold");
    this.sheet = document.querySelector("#hold-sheet");
    this.more = document.querySelector("#hold-more");
    this.range.addEventListener("input", () => fill(this.range));
    this.range.addEventListener("change", () => this.want({ ms: Number(this.range.value) * 1000 }));
    this.typed.addEventListener("change", () => this.want({ ms: Number.parseFloat(this.typed.value.replace(",", ".")) * 1000 }));
    this.more.addEventListener("click", () => {
      this.sheet.hidden = !this.sheet.hidden;
      this.more.setAttribute("aria-expanded", !this.sheet.hidden);
    });
    this.fields();
    this.tell(hold);
  }

  fields() {
    this.roles = Object.entries(ROLES).map(([role, words]) => {
      const input = make("input", "input figure");
      input.id = `hold-${role}`;
      input.placeholder = "as all";
      input.addEventListener("change", () =>
        this.want({
          by_role: {
            ...this.hold.by_role,
            [role]: input.value.trim() === "" ? null : Number.parseFloat(input.value.replace(",", ".")) * 1000,
          },
        }),
      );
      const label = make("label", "said", words);
      label.htmlFor = input.id;
      this.sheet.append(make("div", "", label, input));
      return [role, input];
    });
    this.leaves = make("select", "", ...Object.entries(LEAVES).map(([value, words]) => new Option(words, value)));
    this.leaves.id = "hold-leaves";
    this.leaves.addEventListener("change", () =>
      this.want({ leaves_after_ms: this.leaves.value === "" ? null : Number(this.leaves.value) }),
    );
    const label = make("label", "said", "What a rule holds");
    label.htmlFor = this.leaves.id;
    this.sheet.append(make("div", "", label, make("div", "select", this.leaves)));
  }

  want(values) {
    attempt(() => sendJson("/gate/hold", { ...this.hold, ...values })).then((answer) => this.tell(answer ? answer.hold : this.hold, true));
  }

  tell(hold, anyway = false) {
    this.hold = hold;
    if (!anyway && (document.activeElement === this.range || this.sheet.contains(document.activeElement))) return;
    const seconds = (ms) => `${ms / 1000} s`;
    this.range.value = hold.ms / 1000;
    fill(this.range);
    if (document.activeElement !== this.typed || anyway) this.typed.value = seconds(hold.ms);
    for (const [role, input] of this.roles) input.value = role in hold.by_role ? seconds(hold.by_role[role]) : "";
    this.leaves.value = hold.leaves_after_ms ?? "";
    const words = hold.ms === 0 ? "Lines go on screen as they come." : "Someone may pull a line before it is on screen.";
    document.querySelector("#hold-words").textContent = words;
  }
}
