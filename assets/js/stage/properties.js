// From what Ruby says of a property to the row that sets it.
import { make } from "../house/elements.js";
import { colourRow } from "./colour_row.js";
import { faceRow } from "./face_row.js";
import { choiceRow, numberRow, selectRow } from "./fields.js";
import { fileRow, filesRow } from "./files.js";
import { listRow, someRow, switchRow, textRow } from "./rows.js";

// Choices side by side, where there is room for them.
const SIDE_BY_SIDE_PX = 220;
const LETTER_PX = 7;
const AROUND_PX = 25;
const seconds = {
  read: (text) => (/^\s*for good\s*$/i.test(text) ? "for good" : Number.parseFloat(text.replace(",", ".")) * 1000),
  write: (ms) => (ms === null ? "for good" : ms / 1000),
};

// A slider's reach where the property's own is far more than anybody wants at first.
const FAR = 1000;
const REACH = 400;

function choice(options) {
  const letters = options.choices.reduce((sum, [, words]) => sum + words.length, 0);
  if (letters * LETTER_PX + options.choices.length * AROUND_PX <= SIDE_BY_SIDE_PX) return choiceRow(options);
  return selectRow({ ...options, choices: Object.fromEntries(options.choices) });
}

function number({ min, max, unit, digits, ...options }) {
  const range = max - min <= FAR ? { min, max } : { min: Math.max(min, -REACH), max: Math.max(min, 0) + REACH };
  return numberRow({ ...options, unit: unit ?? "", step: digits > 0 ? 1 / 10 ** digits : 1, range });
}

// Seconds, or for good at the flip of a switch.
function stay(options) {
  const row = numberRow({ ...options, unit: "", ...seconds });
  const { element, show } = switchRow({
    name: `${options.name}_for_good`,
    label: "Lines stay for good",
    want: (values) => options.want({ [options.name]: Object.values(values)[0] ? "for good" : options.default }),
  });
  return {
    element: make("div", "rows", row.element, element),
    show(value) {
      row.show(value);
      show(value === null);
    },
  };
}

// The show's voice rooms, or its cast, as the page has them.
const choicesFrom = (what) => new Map(JSON.parse(document.querySelector("[data-feeds]").dataset[what]));

const ROWS = {
  number,
  choice,
  switch: switchRow,
  colour: colourRow,
  face: faceRow,
  part_face: (options) => faceRow({ ...options, inherit: true }),
  stay,
  text: (options) => (options.from ? selectRow({ ...options, choices: choicesFrom(options.from) }) : textRow(options)),
  some: someRow,
  rows: (options) => (options.fields.some((field) => field.kind === "file") ? filesRow(options) : listRow({ ...options, rowFor })),
  file: fileRow,
};

// What repeats the part's own name is left out of the label.
function shorter(label, part) {
  const begins = part && [`${part} `, `${part}’s `].find((words) => label.toLowerCase().startsWith(words));
  if (!begins) return label;
  const said = label.slice(begins.length);
  return said[0].toUpperCase() + said.slice(1);
}

// field: as Ruby's Property#field; part: the label of the part it stands under
export function rowFor({ part, ...field }) {
  const row = ROWS[field.kind]({ ...field, label: shorter(field.label, part?.toLowerCase()) });
  row.name = field.name;
  row.needs = field.needs;
  row.element.dataset.property = field.name;
  return row;
}

// Whether a row is of any use yet. value(name): what is set
export function wanted({ needs }, value) {
  if (!needs) return true;
  const [name, values] = needs;
  return values === "some" ? value(name) > 0 : values.includes(value(name));
}
