// What becomes of the chosen frame: as on air, and field by field, with what it could have besides.
import { button, icon, make } from "../house/elements.js";
import { lineOf } from "../link/line.js";

const EMOTE_PX = 28;
const DEEDS = {
  edit: ({ id, text }) => `The line ${id ?? ""} says “${text}” from now on.`,
  delete: ({ id }) => `Takes the line ${id ?? ""} away.`,
  silence: ({ login }) => `Takes all lines of ${login} away.`,
  clear: () => "Takes all lines away.",
  totals: (fields) =>
    Object.entries(fields)
      .map(([what, count]) => `${count} ${what} in all`)
      .join(", "),
  begun: () => "The broadcast begins.",
  ended: () => "The broadcast is over.",
  nothing: () => "Is left out.",
  "cannot be read": () => "A rule reads this, and nothing comes of it.",
};

function told(value) {
  if (Array.isArray(value)) return value.map(told).join(", ");
  if (value !== null && typeof value === "object") return Object.values(value).map(told).join(", ");
  return String(value);
}

export class Becomes {
  constructor({ offer }) {
    this.offer = offer;
    this.drawn = document.querySelector("#drawn");
    this.fields = document.querySelector("#fields");
    this.list = document.querySelector("#checks");
  }

  draw({ chosen, drawn }, frame) {
    const others = (chosen ?? []).filter((item) => item.is === null || DEEDS[item.is]);
    this.drawn.replaceChildren(
      ...drawn.map((card) => make("div", "drawn-line", lineOf(card, { height: EMOTE_PX, still: false }))),
      ...others.filter((item) => item.is).map((item) => make("p", "drawn-deed", DEEDS[item.is](item.fields))),
    );
    if (this.drawn.childElementCount === 0)
      this.drawn.append(make("p", "drawn-deed", frame === undefined ? "Choose a frame." : "Nothing is drawn of this."));
    this.fields.replaceChildren(...(chosen ?? []).flatMap((item, index) => this.item(item, index, chosen.length)));
    if (frame === undefined) this.fields.replaceChildren(make("p", "said", "What stands in a frame is told here."));
    else if (chosen?.length === 0) this.fields.replaceChildren(make("p", "said", "Nothing stands in it where “items” says."));
  }

  item(item, index, count) {
    const head = count > 1 ? [make("h3", "", `${index + 1}. ${item.is ?? "unread"}`)] : [];
    if (item.is === null) return [...head, this.unknown(item, index)];
    const rows = [
      ...Object.entries(item.fields).map(([name, value]) => this.row(name, told(value), "circle-check")),
      ...item.unread.map((field) => this.unread(field, index)),
      ...item.lacks.map((name) => this.row(name, "not given", null)),
    ];
    return [...head, rows.length === 0 ? make("p", "said", "Nothing of it is read.") : make("dl", "fields-list", ...rows)];
  }

  row(name, value, drawing) {
    if (name === "time" && drawing) value = new Date(Number(value)).toISOString();
    const row = make(
      "div",
      "",
      make("dt", "", name),
      make("dd", "", make("span", "", value), drawing ? icon(drawing) : make("span", "lacks", "–")),
    );
    row.classList.toggle("lacking", drawing === null);
    return row;
  }

  // Pressing it offers what it could be.
  unread({ path, value, offers }, item) {
    const choice = make(
      "select",
      "",
      new Option("unread", ""),
      ...offers.map((field) => new Option(`is the ${field.replaceAll("_", " ")}`, field)),
    );
    choice.setAttribute("aria-label", `What ${path} is`);
    choice.disabled = offers.length === 0;
    choice.addEventListener("change", () => choice.value && this.offer({ item, path, field: choice.value }));
    return make("div", "unread-row", make("dt", "", path), make("dd", "", make("span", "", told(value)), make("div", "select", choice)));
  }

  unknown({ kinds }, item) {
    const choice = make("select", "", ...kinds.map((kind) => new Option(kind, kind)));
    choice.setAttribute("aria-label", "What it is");
    const add = button("Add a rule", "plus", () => this.offer({ item, is: choice.value }), "button");
    return make(
      "div",
      "unknown",
      make("p", "said", "Nothing reads this yet. What is it?"),
      make("div", "unknown-do", make("div", "select", choice), add),
    );
  }

  // checks: [[true | false | null, words] …]
  checks(checks) {
    this.list.replaceChildren(
      ...checks.map(([well, words]) =>
        make(
          "li",
          well === null ? "" : well ? "well" : "wrong",
          icon(well === null ? "circle-help" : well ? "circle-check" : "triangle-alert"),
          words,
        ),
      ),
    );
  }
}
