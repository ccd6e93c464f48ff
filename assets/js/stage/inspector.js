// What can be set about the chosen piece, or about the stage where none is chosen.
import { make } from "../house/elements.js";
import { choiceRow, colourRow, numberField, numberRow, selectRow } from "./fields.js";

// The faces that are shipped, as Ruby knows them.
const FACES = JSON.parse(document.querySelector("#inspector")?.dataset.faces ?? "[]");
const seconds = {
  read: (text) => (/^\s*for good\s*$/i.test(text) ? "for good" : Number.parseFloat(text.replace(",", ".")) * 1000),
  write: (ms) => (ms === null ? "for good" : ms / 1000),
};

const PARTS = {
  name: [
    [
      choiceRow,
      {
        name: "name_colour",
        label: "Colour",
        choices: [
          ["theirs", "Theirs, kept readable"],
          ["one", "One for all"],
        ],
      },
    ],
    [colourRow, { name: "one_name_colour", label: "That one" }],
  ],
  text: [
    [selectRow, { name: "face", label: "Face", choices: FACES }],
    [numberRow, { name: "size_px", label: "Size", unit: "px", range: { min: 8, max: 120 } }],
    [numberRow, { name: "weight", label: "Weight", step: 10, range: { min: 100, max: 900 } }],
    [colourRow, { name: "text_colour", label: "Colour" }],
  ],
  plate: [
    [colourRow, { name: "plate_colour", label: "Colour" }],
    [numberRow, { name: "plate_opacity", label: "Opacity", unit: "%", range: { min: 0, max: 100 } }],
  ],
  stack: [
    [
      choiceRow,
      {
        name: "newest",
        label: "Newest line",
        choices: [
          ["bottom", "At the bottom"],
          ["top", "At the top"],
        ],
      },
    ],
    [numberRow, { name: "at_most", label: "Lines kept", range: { min: 1, max: 50 } }],
    [numberRow, { name: "stay_ms", label: "Seconds shown", unit: "", ...seconds }],
    [numberRow, { name: "keep_last", label: "Always stay", range: { min: 0, max: 50 } }],
  ],
};

export class Inspector {
  // set(values, gesture): of the chosen piece; size(values, gesture): of the stage; gesture(): a new one
  constructor({ set, size, gesture }) {
    this.shows = { where: [], frame: [], parts: {} };
    this.forPiece = document.querySelector("#for-piece");
    this.forStage = document.querySelector("#for-stage");
    this.partsBox = document.querySelector("#parts");
    this.buildParts({ want: set, gesture });
    this.buildNumbers("#where", this.shows.where, set, gesture, [
      ["x", "X"],
      ["y", "Y"],
      ["width", "W"],
      ["height", "H"],
    ]);
    this.buildNumbers("#frame-fields", this.shows.frame, size, gesture, [
      ["width", "Width"],
      ["height", "Height"],
      ["frame_rate", "Frames a second"],
    ]);
    this.specimen = document.querySelector("#specimen-line");
    document.querySelector("#specimen").addEventListener("click", (event) => {
      const part = event.target.closest("[data-part]")?.dataset.part;
      if (part) this.choose(part);
    });
    this.choose("text");
  }

  buildParts(common) {
    for (const [part, rows] of Object.entries(PARTS)) {
      const built = rows.map(([row, options]) => ({ name: options.name, ...row({ ...options, ...common }) }));
      const box = make("div", "parts-of", ...built.map((row) => row.element));
      box.dataset.of = part;
      this.shows.parts[part] = { box, rows: built };
      if (part === "text" || part === "plate") {
        this.shows.parts[part].measured = make("p", "said");
        box.append(this.shows.parts[part].measured);
      }
      if (part === "stack") this.addForGood(box, common.want);
      box.style.display = "grid";
      box.style.gap = "11px";
    }
  }

  addForGood(box, want) {
    const input = make("input");
    input.type = "checkbox";
    input.setAttribute("role", "switch");
    input.addEventListener("change", () => want({ stay_ms: input.checked ? "for good" : 14000 }));
    this.forGood = input;
    box.children[2].after(make("label", "switch", input, "Lines stay for good"));
  }

  buildNumbers(place, shows, want, gesture, list) {
    const root = document.querySelector(place);
    for (const [name, label] of list) {
      const field = numberField({ name, label, want, gesture });
      root.append(make("div", "", field.label, field.input));
      shows.push({ name, show: field.show });
    }
  }

  choose(part) {
    this.part = part;
    this.partsBox.replaceChildren(this.shows.parts[part].box);
    for (const tag of document.querySelectorAll(".specimen-tags [data-part]")) tag.setAttribute("aria-pressed", tag.dataset.part === part);
    for (const piece of this.specimen.querySelectorAll("[data-part]"))
      piece.classList.toggle("lit", piece.dataset.part === part && part !== "plate");
    this.specimen.classList.toggle("lit", part === "plate");
  }

  show(document_, piece, legibility) {
    this.forPiece.hidden = !piece;
    this.forStage.hidden = Boolean(piece);
    for (const field of this.shows.frame) field.show(document_[field.name]);
    if (!piece) return;
    for (const field of this.shows.where) field.show(piece[field.name]);
    for (const { rows, measured } of Object.values(this.shows.parts)) {
      for (const row of rows) row.show(piece[row.name]);
      if (measured) measured.textContent = legibility;
    }
    this.forGood.checked = piece.stay_ms === null;
    this.drawSpecimen(piece);
  }

  drawSpecimen(piece) {
    const style = this.specimen.style;
    style.fontFamily = `"${piece.face}", sans-serif`;
    style.fontSize = `${Math.min(piece.size_px, 20)}px`;
    style.fontWeight = piece.weight;
    style.color = piece.text_colour;
    this.specimen.querySelector(".specimen-plate").style.background = piece.plate_colour;
    this.specimen.querySelector(".specimen-plate").style.opacity = piece.plate_opacity / 100;
    this.specimen.querySelector('[data-part="name"]').style.color = piece.name_colour === "one" ? piece.one_name_colour : "#f3b634";
  }
}
