// The one place where a viewer's words become part of a page: as text nodes, never as markup.
import { markOf } from "./marks.js";

function element(name, className, text) {
  const made = document.createElement(name);
  made.className = className;
  if (text !== undefined) made.textContent = text;
  return made;
}

export function fragmentsOf(fragments) {
  return fragments.map(([kind, text]) => (kind === "text" ? document.createTextNode(text) : element("span", kind, text)));
}

// A card is what Ruby's LineCard made: i id, t time, n name, c colour, k kind, m mark, f fragments, o origin.
export function lineOf(card) {
  const line = element("div", "line");
  line.dataset.line = card.i;
  line.dataset.time = card.t;
  line.dataset.kind = card.k;
  if (card.o) line.dataset.origin = card.o;

  const plate = element("div", "plate");
  plate.setAttribute("elementtiming", `line-${card.i}`);
  const name = element("bdi", "name", card.n);
  const text = element("span", "text");
  text.dir = "auto";
  text.append(...fragmentsOf(card.f));
  // A text that cannot be broken goes on the next line rather than the name.
  plate.append(markOf(card.m), name, document.createElement("wbr"), text);
  line.append(plate);
  recolour(line, card.c);
  return line;
}

export function recolour(line, colour) {
  line.style.setProperty("--name", colour);
}
