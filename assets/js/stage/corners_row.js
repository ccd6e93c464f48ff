// Rounding as one value, which opens into its four corners.
import { button, make } from "../house/elements.js";
import { rowFor } from "./properties.js";

const CORNERS = ["top_start", "top_end", "bottom_end", "bottom_start"];

// Of some names the four of a rounding, or nothing.
export function cornersAt(names, at) {
  const prefix = names[at].match(/^(.*round)_top_start$/)?.[1];
  const four = CORNERS.map((corner) => `${prefix}_${corner}`);
  return prefix && four.every((name, index) => names[at + index] === name) ? four : null;
}

export function cornersRow(fields, { part, want, gesture }) {
  const [first] = fields;
  const all = (values, how) => {
    const [value] = Object.values(values);
    return want(Object.fromEntries(fields.map(({ name }) => [name, value])), how);
  };
  const one = rowFor({ ...first, name: first.name.replace("_top_start", ""), label: "Rounding", needs: undefined, want: all, gesture });
  const four = fields.map((field) => rowFor({ ...field, part, want, gesture }));
  const each = make("div", "rows", ...four.map(({ element }) => element));
  let asked = false;
  const turn = () => {
    asked = !asked;
    draw();
  };
  const opener = button("Each corner by itself", null, turn, "button plain small");
  let differ = false;
  function draw() {
    const open = asked || differ;
    each.hidden = !open;
    one.element.hidden = open;
    opener.hidden = differ;
    opener.setAttribute("aria-expanded", open);
    opener.textContent = open ? "All corners alike" : "Each corner by itself";
  }
  return {
    name: first.name,
    names: fields.map(({ name }) => name),
    needs: first.needs,
    element: make("div", "rows", one.element, each, opener),
    show(values) {
      differ = new Set(values).size > 1;
      one.show(values[0]);
      for (const [index, row] of four.entries()) row.show(values[index]);
      draw();
    },
  };
}
