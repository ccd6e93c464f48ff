// The row that sets a colour.
import { button, icon, make } from "../house/elements.js";
import { labelled, nextId } from "./fields.js";

// A colour of its own, or one of the show's by name.
export function colourRow({ name, label, want, gesture }) {
  const picker = make("input");
  const input = make("input", "input figure");
  const sheet = make("div", "menu-sheet swatches");
  const menu = make("details", "swatch-menu", make("summary", "button plain", icon("palette")), sheet);
  picker.type = "color";
  picker.setAttribute("aria-label", `${label}, as a swatch`);
  menu.firstElementChild.setAttribute("aria-label", `${label}, from the show’s colours`);
  input.id = nextId();
  input.name = name;
  input.spellcheck = false;
  let how = null;
  picker.addEventListener("input", () => {
    how ??= gesture();
    want({ [name]: picker.value }, how);
  });
  picker.addEventListener("change", () => {
    how = null;
  });
  input.addEventListener("change", () => want({ [name]: input.value }));
  const take = (key) => {
    menu.open = false;
    want({ [name]: `house:${key}` });
  };
  return {
    element: make("div", "row", labelled(label, input, "label"), make("div", "row-colour", picker, input, menu)),
    show(value, stage) {
      const own = value.startsWith("house:") && stage?.house?.colours[value.slice(6)];
      picker.value = own ? own.value : value.startsWith("#") ? value : "#000000";
      if (document.activeElement !== input) input.value = own ? own.name : value;
      input.classList.toggle("of-house", Boolean(own));
      menu.hidden = !stage?.house;
      if (stage?.house) showSwatches(sheet, stage.house.colours, take);
    },
  };
}

function showSwatches(sheet, colours, take) {
  const drawn = JSON.stringify(colours);
  if (sheet.dataset.drawn === drawn) return;
  sheet.dataset.drawn = drawn;
  sheet.replaceChildren(
    ...Object.entries(colours).map(([key, { name, value }]) => {
      const swatch = button(name, null, () => take(key), "swatch");
      swatch.style.setProperty("--swatch", value);
      return swatch;
    }),
  );
}
