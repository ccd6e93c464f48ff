// Small makers of elements; text goes in as text.
export function make(name, className = "", ...inside) {
  const element = document.createElement(name);
  if (className) element.className = className;
  element.append(...inside.filter((part) => part !== null && part !== undefined));
  return element;
}

const SVG = "http://www.w3.org/2000/svg";

export function svg(name, attributes = {}) {
  const element = document.createElementNS(SVG, name);
  for (const [key, value] of Object.entries(attributes)) element.setAttribute(key, value);
  return element;
}

// Where an icon of the sprite lies, beside the scripts.
export const iconAt = (name) => new URL(`../../vendor/lucide/icons.svg#${name}`, import.meta.url).href;

export function icon(name) {
  const drawn = svg("svg", { class: "icon-drawn", viewBox: "0 0 24 24", "aria-hidden": "true" });
  drawn.append(svg("use", { href: iconAt(name) }));
  return drawn;
}

export function button(label, drawing, act, className = "button") {
  const made = make("button", className, drawing ? icon(drawing) : null, label);
  made.type = "button";
  made.addEventListener("click", act);
  return made;
}
