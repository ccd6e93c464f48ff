// The show's own colours and faces: named, changed, added and taken away.
import { button, make } from "../house/elements.js";

const SORTS = [
  ["colours", "Add a colour", { name: "Another", value: "#63c58a" }],
  ["faces", "Add a face", { name: "Another", value: "Fraunces" }],
];
const ALWAYS = new Set(["ink", "ground", "accent", "second", "soft", "text", "heading"]);

export class HouseStyle {
  // set(sort, key, value, gesture), gesture()
  constructor(root, tell) {
    this.root = root;
    this.tell = tell;
    this.faces = JSON.parse(document.querySelector("#inspector").dataset.faces);
  }

  show(house) {
    const drawn = JSON.stringify(house);
    if (this.drawn === drawn || (this.root.contains(document.activeElement) && this.typing())) return;
    this.drawn = drawn;
    this.root.replaceChildren(...SORTS.map((sort) => this.sort(house, ...sort)));
  }

  typing() {
    return document.activeElement.matches('input:not([type="color"])');
  }

  sort(house, sort, label, fresh) {
    const rows = Object.entries(house[sort]).map(([key, entry]) => this.row(sort, key, entry));
    const add = button(label, "plus", () => this.tell.set(sort, this.free(house[sort], sort), fresh), "button plain");
    return make("div", "house-sort", ...rows, add);
  }

  free(entries, sort) {
    let number = 1;
    while (`${sort[0]}${number}` in entries) number += 1;
    return `${sort[0]}${number}`;
  }

  row(sort, key, { name, value }) {
    const called = make("input", "input");
    called.value = name;
    called.setAttribute("aria-label", `Name of ${name}`);
    called.addEventListener("change", () => this.tell.set(sort, key, { name: called.value, value }));
    const itself = sort === "colours" ? this.colour(key, name, value) : this.face(key, name, value);
    const off = button("", "x", () => this.tell.set(sort, key, null), "button plain");
    off.setAttribute("aria-label", `Take ${name} away`);
    off.hidden = ALWAYS.has(key);
    return make("div", "house-row", itself, called, off);
  }

  colour(key, name, value) {
    const picker = make("input");
    picker.type = "color";
    picker.value = value;
    picker.setAttribute("aria-label", `Colour of ${name}`);
    let how = null;
    picker.addEventListener("input", () => {
      how ??= this.tell.gesture();
      this.tell.set("colours", key, { name, value: picker.value }, how);
    });
    picker.addEventListener("change", () => {
      how = null;
    });
    return picker;
  }

  face(key, name, value) {
    const select = make("select", "", ...this.faces.map((face) => new Option(face, face)));
    if (!this.faces.includes(value)) select.append(new Option(value, value));
    select.value = value;
    select.setAttribute("aria-label", `Face of ${name}`);
    select.addEventListener("change", () => this.tell.set("faces", key, { name, value: select.value }));
    return make("div", "select", select);
  }
}
