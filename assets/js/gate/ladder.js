// The rules as a ladder: what each is, what it did in the last hour, and its settings when it is opened.
import { button, icon, make } from "../house/elements.js";
import { attempt } from "../house/send.js";
import { clock, lasting } from "../house/words.js";
import { numberRow, selectRow } from "../stage/fields.js";
import { someRow, switchRow, textRow } from "../stage/rows.js";
import { listTools } from "./list_tools.js";

const ACTIONS = { drop: "off", hold: "mind", mask: "told", calm: "told" };
const WORDS = { drop: "Drop", hold: "Hold", mask: "Mask", calm: "Calm" };
// Shown in the row itself.
const IN_ROW = new Set(["on"]);
const FULL_BAR = 40;
const ROWS = {
  switch: switchRow,
  text: textRow,
  lines: textRow,
  some: someRow,
  number: (field) => numberRow({ ...field, gesture: () => ({}) }),
  choice: (field) => selectRow({ ...field, choices: new Map(field.choices) }),
};

export class LadderList {
  constructor(list, edit) {
    this.list = list;
    this.edit = edit;
    this.open = null;
    this.did = {};
    edit.heard(() => this.draw());
    this.draw();
  }

  want(rule, values) {
    return attempt(() => this.edit.set(rule.id, values));
  }

  draw() {
    const focused = document.activeElement?.dataset?.key;
    this.list.replaceChildren(...this.edit.rules.map((rule) => this.row(rule)));
    if (focused) this.list.querySelector(`[data-key="${focused}"]`)?.focus();
    this.tellCounts(this.did);
  }

  row(rule) {
    const kind = this.edit.kind(rule);
    const open = this.open === rule.id;
    const opener = button("", null, () => this.toggle(rule.id), "rule-open");
    opener.dataset.key = `open-${rule.id}`;
    opener.setAttribute("aria-expanded", open);
    opener.append(make("h2", "", kind.label), make("span", "said", rule.words_of));
    opener.addEventListener("keydown", (event) => this.key(event, rule));
    const on = make("input");
    on.type = "checkbox";
    on.checked = rule.on;
    on.dataset.key = `on-${rule.id}`;
    on.setAttribute("role", "switch");
    on.setAttribute("aria-label", `${kind.label} in force`);
    on.addEventListener("change", () => this.want(rule, { on: on.checked }));
    const bar = make("span", "rule-did", make("span", `bar ${ACTIONS[rule.action]}`, make("i")), make("small", "figure"));
    bar.dataset.did = rule.id;
    const head = make(
      "div",
      "rule-head",
      make("span", "rule-icon", icon(kind.icon)),
      opener,
      bar,
      make("span", `chip tag ${ACTIONS[rule.action]}`, WORDS[rule.action]),
      make("label", "switch", on),
    );
    const item = make("li", `rule${rule.on ? "" : " resting"}${open ? " open" : ""}`, head);
    item.dataset.rule = rule.id;
    if (open) item.append(this.settings(rule, kind));
    return item;
  }

  // Alt and an arrow moves a rule, Delete takes it away.
  key(event, rule) {
    const steps = { ArrowUp: -1, ArrowDown: 1 }[event.key];
    if (steps && event.altKey) {
      event.preventDefault();
      attempt(() => this.edit.move(rule.id, steps));
    }
    if (event.key === "Delete") attempt(() => this.edit.remove(rule.id));
  }

  toggle(id) {
    this.open = this.open === id ? null : id;
    this.draw();
  }

  settings(rule, kind) {
    const own = kind.fields.filter((field) => !IN_ROW.has(field.name));
    const common = new Set(["roles", "feeds", "known_under_h", "except_roles", "except_people"]);
    const rows = (fields) =>
      fields.map((field) => {
        const row = ROWS[field.kind]({ ...field, want: (values) => this.want(rule, values) });
        row.show(rule[field.name]);
        if (field.kind === "lines")
          row.element.append(
            listTools(
              () => rule[field.name],
              (text) => this.want(rule, { [field.name]: text }),
            ),
          );
        return row.element;
      });
    const whom = make(
      "details",
      "rule-whom",
      make("summary", "", "Whom it is for, and exceptions"),
      make("div", "rule-fields", ...rows(own.filter((field) => common.has(field.name)))),
    );
    whom.open = own.some((field) => common.has(field.name) && JSON.stringify(rule[field.name]) !== JSON.stringify(field.default));
    const foot = make(
      "div",
      "rule-foot",
      button("Earlier", "arrow-up", () => attempt(() => this.edit.move(rule.id, -1)), "button plain"),
      button("Later", "arrow-down", () => attempt(() => this.edit.move(rule.id, 1)), "button plain"),
      button("Take away", "trash-2", () => attempt(() => this.edit.remove(rule.id)), "button plain"),
      make("span", "said rule-last"),
    );
    return make("div", "rule-settings", make("div", "rule-fields", ...rows(own.filter((field) => !common.has(field.name)))), whom, foot);
  }

  // did: by rule, how often in the last hour and when last
  tellCounts(did, now = Date.now()) {
    this.did = did;
    for (const element of this.list.querySelectorAll("[data-did]")) {
      const { hour = 0, last } = did[element.dataset.did] ?? {};
      element.querySelector("i").style.width = `${Math.min(100, (hour / FULL_BAR) * 100)}%`;
      element.querySelector("small").textContent = `${hour} this hour`;
      const words = element.closest("li").querySelector(".rule-last");
      if (words)
        words.textContent = last ? `Last mattered at ${clock(last)}, ${lasting(now - last)} ago` : "Has not mattered since the log begins";
    }
  }
}
