// The row that sets a face.
import { make } from "../house/elements.js";
import { labelled, nextId } from "./fields.js";
import { upload } from "./files.js";

// A face that is shipped, one of the show's by name, or one of the broadcast computer by its exact name.
export function faceRow({ name, label, inherit, want }) {
  const select = make("select");
  select.id = nextId();
  select.name = name;
  const exact = make("input", "input");
  exact.placeholder = "Its exact name there";
  exact.setAttribute("aria-label", `${label}, by its exact name on the broadcast computer`);
  exact.hidden = true;
  const file = make("input", "is-sr-only");
  Object.assign(file, { type: "file", accept: ".ttf,.otf,.woff2", tabIndex: -1 });
  file.setAttribute("aria-label", `${label}, from a file`);
  let kept = "";
  select.addEventListener("change", () => {
    exact.hidden = select.value !== "installed:";
    if (select.value === "upload:") {
      select.value = kept;
      file.click();
    } else if (exact.hidden) want({ [name]: select.value });
    else exact.focus();
  });
  file.addEventListener("change", async () => {
    const [made] = await upload("font", [...file.files]);
    file.value = "";
    if (!made) return;
    ownFaces.push([`file:${made.id}`, made.name]);
    want({ [name]: `file:${made.id}` });
  });
  exact.addEventListener("change", () => exact.value.trim() && want({ [name]: `installed:${exact.value.trim()}` }));
  return {
    element: make("div", "row", labelled(label, select, "label"), make("div", "row-face", make("div", "select", select), exact, file)),
    show(value, stage) {
      kept = value;
      fillFaces(select, stage, inherit);
      const installed = value.startsWith("installed:");
      select.value = installed ? "installed:" : value;
      exact.hidden = !installed;
      if (document.activeElement !== exact) exact.value = installed ? value.slice(10) : "";
    },
  };
}

const ownFaces = JSON.parse(document.querySelector("#inspector")?.dataset.ownFaces ?? "[]");
const SHIPPED = () => JSON.parse(document.querySelector("#inspector").dataset.faces);

function fillFaces(select, stage, inherit) {
  const faces = Object.entries(stage?.house.faces ?? {});
  const drawn = JSON.stringify([faces, ownFaces]);
  if (select.dataset.drawn === drawn) return;
  select.dataset.drawn = drawn;
  const group = (label, options) => {
    const made = make("optgroup", "", ...options);
    made.label = label;
    return made;
  };
  select.replaceChildren(
    ...(inherit ? [new Option("As the text", "")] : []),
    group(
      "The show’s",
      faces.map(([key, face]) => new Option(`${face.name}: ${face.value}`, `house:${key}`)),
    ),
    group(
      "Shipped",
      SHIPPED().map((face) => new Option(face, face)),
    ),
    group("Your own", [...ownFaces.map(([face, words]) => new Option(words, face)), new Option("From a file…", "upload:")]),
    group("Elsewhere", [new Option("On the broadcast computer…", "installed:")]),
  );
}
