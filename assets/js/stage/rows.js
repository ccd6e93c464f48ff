// Rows of the inspector for what is neither a number nor a plain choice. Each tells what is wanted; whether that may be is
// for Ruby to say. show(value, document) puts a row to what is kept.
import { button, make } from "../house/elements.js";
import { asking } from "./asking.js";
import { labelled, nextId } from "./fields.js";

export function switchRow({ name, label, want }) {
  const input = make("input");
  input.type = "checkbox";
  input.name = name;
  input.setAttribute("role", "switch");
  input.addEventListener("change", () => want({ [name]: input.checked }));
  return {
    element: make("label", "switch row-switch", input, label),
    show(value) {
      input.checked = value;
    },
  };
}

export function textRow({ name, label, max, want }) {
  const input = make(max > 120 ? "textarea" : "input", max > 120 ? "textarea" : "input");
  input.id = nextId();
  input.name = name;
  input.maxLength = max;
  if (max > 120) input.rows = 3;
  input.addEventListener("change", () => want({ [name]: input.value }));
  return {
    element: make("div", max > 120 ? "row tall" : "row", labelled(label, input, "label"), input),
    show(value) {
      if (document.activeElement !== input) input.value = value;
    },
  };
}

// Some of a few words, each a switch of its own; without choices, what the page names: the show's feeds, or what it says.
export function someRow({ name, label, choices, from = "feeds", want }) {
  const group = make("div", "some");
  group.setAttribute("role", "group");
  group.setAttribute("aria-label", label);
  group.dataset.name = name;
  const there = () => JSON.parse(document.querySelector("[data-feeds]").dataset[from]).map((one) => [one.id, one.name]);
  const boxes = (choices ?? there()).map(([value, words]) => {
    const box = make("input");
    box.type = "checkbox";
    box.value = value;
    box.addEventListener("change", () => want({ [name]: boxes.filter((one) => one.checked).map((one) => one.value) }));
    group.append(make("label", "", box, words));
    return box;
  });
  return {
    element: make("div", "row tall", make("span", "label", label), group),
    show(value) {
      for (const box of boxes) box.checked = value.includes(box.value);
    },
  };
}

// Rows of the same few fields: colours by role, by person.
export function listRow({ name, label, fields, most, want, gesture, rowFor }) {
  const list = make("div", "list-rows");
  let rows = [];
  const { give: send, told } = asking(want);
  const give = () => send({ [name]: rows });
  const add = button("One more", "plus", () => {
    if (rows.length >= most) return;
    rows = [...rows, Object.fromEntries(fields.map((field) => [field.name, field.default]))];
    give();
  });
  add.setAttribute("aria-label", `One more: ${label}`);
  return {
    element: make("div", "row tall", make("span", "label", label), list, add),
    show: told((value, stage) => {
      if (list.contains(document.activeElement) && value.length === rows.length) return;
      rows = value;
      list.replaceChildren(
        ...rows.map((row, index) => {
          const change = (values) => {
            rows = rows.map((one, at) => (at === index ? { ...one, ...values } : one));
            give();
          };
          const made = fields.map((field) => rowFor({ ...field, want: change, gesture }));
          for (const [at, field] of fields.entries()) made[at].show(row[field.name], stage);
          const off = button(
            "",
            "x",
            () => {
              rows = rows.filter((_, at) => at !== index);
              give();
            },
            "button plain",
          );
          off.setAttribute("aria-label", "Take this one off");
          return make("div", "list-row", ...made.map((one) => one.element), off);
        }),
      );
    }),
  };
}
