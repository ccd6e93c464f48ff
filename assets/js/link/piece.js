// What every kind of piece shares: its place, its side of the camera, and the settings its styles work with.
import { make } from "../house/elements.js";
import { loadOwnFaces } from "./own_faces.js";

// A ground for what stands in it, and what it may hang by.
export const plateOf = (className, ...children) => make("div", `plate ${className}`.trim(), make("i", "held"), ...children);

export class Piece {
  constructor(id, kind, overrides) {
    this.id = id;
    this.overrides = overrides;
    this.set = new Set();
    this.element = document.createElement("section");
    this.element.className = `piece ${kind.replaceAll("_", "-")}`;
    this.element.dataset.piece = id;
  }

  style(given) {
    const [x, y, width, height] = given.place;
    const place = { "--x": `${x}px`, "--y": `${y}px`, "--width": `${width}px`, "--height": `${height}px`, "--opacity": given.opacity };
    const [form, other] = given.other ?? [];
    const css = { ...place, ...given.css, ...(form === this.overrides.form ? other : {}), ...(given.css ? this.overrides.css : {}) };
    for (const name of this.set) if (!(name in css)) this.element.style.removeProperty(name);
    // Only what is another value: each one set anew is worked out anew by the page.
    for (const [name, value] of Object.entries(css)) if (this.css?.[name] !== value) this.element.style.setProperty(name, value);
    this.css = css;
    loadOwnFaces(Object.values(given.css ?? {}).join());
    this.set = new Set(Object.keys(css));
    for (const [name, value] of Object.entries(given.words ?? {})) this.element.dataset[camel(name)] = value;
    this.own(given.own_css ?? "");
    this.side = given.side;
    this.otherForm = Boolean(form) && form === this.overrides.form;
    this.given = given;
  }

  // The host's own CSS for this piece, made safe by Ruby.
  own(css) {
    if (css === (this.ownCss ?? "")) return;
    this.ownCss = css;
    if (!this.sheet) {
      this.sheet = new CSSStyleSheet();
      document.adoptedStyleSheets = [...document.adoptedStyleSheets, this.sheet];
    }
    this.sheet.replaceSync(css);
  }

  remove() {
    this.element.remove();
    if (this.sheet) document.adoptedStyleSheets = document.adoptedStyleSheets.filter((sheet) => sheet !== this.sheet);
  }

  live() {}

  voices() {}

  alert() {}

  counted() {}
}

const camel = (name) => name.replace(/_(.)/g, (_, letter) => letter.toUpperCase());
