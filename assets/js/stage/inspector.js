// What can be set about the chosen piece, about several, or about the stage where none is chosen.
import { make } from "../house/elements.js";
import { cornersAt, cornersRow } from "./corners_row.js";
import { dressed } from "./looks.js";
import { numberField } from "./fields.js";
import { rowFor, wanted } from "./properties.js";
import { inOrder, movable, Specimen } from "./specimen.js";

const PLACE = [
  ["x", "X"],
  ["y", "Y"],
  ["width", "W"],
  ["height", "H"],
];
const SIZE = [
  ["width", "Width"],
  ["height", "Height"],
  ["frame_rate", "Frames a second"],
];
const COMMON = ["called", "side", "opacity", "keep_proportion", "locked", "hidden"];

export class Inspector {
  // kinds: as Ruby's StageSheet; tell: set(values, gesture), size(values, gesture), gesture(), called(piece)
  constructor(kinds, tell) {
    this.kinds = kinds;
    this.tell = tell;
    this.built = new Map();
    this.part = {};
    this.partsBox = document.querySelector("#parts");
    this.tags = document.querySelector("#part-tags");
    this.where = this.numbers("#where", PLACE, tell.set);
    this.frame = this.numbers("#frame-fields", SIZE, tell.size);
    this.specimen = new Specimen(document.querySelector("#specimen"), this.tags, document.querySelector("#draft"), {
      choose: (part) => this.choose(part),
      order: (parts) => tell.set({ parts }),
    });
  }

  numbers(place, list, want) {
    const root = document.querySelector(place);
    return list.map(([name, label]) => {
      const field = numberField({ name, label, want, gesture: this.tell.gesture });
      root.append(make("div", "", field.label, field.input));
      return { name, show: field.show };
    });
  }

  rows(kind, names, part) {
    const { fields } = this.kinds[kind];
    const told = { part, want: this.tell.set, gesture: this.tell.gesture };
    const rows = [];
    for (let at = 0; at < names.length; at++) {
      const four = cornersAt(names, at);
      if (four) at += four.length - 1;
      rows.push(
        four
          ? cornersRow(
              four.map((name) => ({ ...fields[name], name })),
              told,
            )
          : rowFor({ ...fields[names[at]], ...told, name: names[at] }),
      );
    }
    return rows;
  }

  // Rows are made the first time a part is looked at.
  partOf(kind, key) {
    const known = this.built.get(`${kind}/${key}`);
    if (known) return known;
    const { label, groups } = this.kinds[kind].parts.find((part) => part.key === key);
    const rows = [];
    const boxes = groups
      .filter(({ names }) => names.length > 0)
      .map(({ title, names }) => {
        const made = this.rows(kind, names, label);
        rows.push(...made);
        const elements = made.map((row) => row.element);
        return title ? folded(title, elements) : make("div", "rows", ...elements);
      });
    const built = { rows, box: make("div", "part", ...boxes) };
    this.built.set(`${kind}/${key}`, built);
    return built;
  }

  choose(key) {
    const { kind } = this.piece;
    if (!this.kinds[kind].parts.some((part) => part.key === key)) return;
    this.part[kind] = key;
    this.showPart();
  }

  // A setting that was looked for stands open, and has the keyboard.
  reveal(name) {
    const part = this.kinds[this.piece.kind].parts.find(({ groups }) => groups.some(({ names }) => names.includes(name)));
    if (!part) return;
    this.choose(part.key);
    const row = this.built.get(`${this.piece.kind}/${part.key}`).rows.find((one) => one.name === name || one.names?.includes(name));
    if (!row) return;
    for (let at = row.element.closest("details"); at; at = at.parentElement.closest("details")) at.open = true;
    row.element.scrollIntoView({ block: "center" });
    row.element.classList.add("looked-for");
    row.element.querySelector("input, select, textarea, button")?.focus();
  }

  showPart() {
    const { kind } = this.piece;
    const key = this.part[kind] ?? (kind === "chat" ? "text" : this.kinds[kind].parts[0].key);
    const { rows, box } = this.partOf(kind, key);
    if (this.partsBox.firstElementChild !== box) this.partsBox.replaceChildren(box);
    for (const row of rows) {
      row.element.hidden = !wanted(row, (name) => this.value(name));
      row.show(row.names ? row.names.map((name) => this.value(name)) : this.value(row.name), this.document);
    }
    this.showTags(key);
    this.specimen.light(key);
  }

  // On bright pictures' form, what differs there.
  value(name) {
    const { bright, form } = this.piece;
    return form === "bright" && name in bright ? bright[name] : this.piece[name];
  }

  showTags(key) {
    const parts = this.piece.parts ? inOrder(this.kinds[this.piece.kind].parts, this.piece.parts) : this.kinds[this.piece.kind].parts;
    const drawn = JSON.stringify([parts.map((part) => part.key), key, this.piece.kind]);
    if (this.tags.dataset.drawn === drawn) return;
    this.tags.dataset.drawn = drawn;
    const focused = document.activeElement?.dataset.part;
    this.tags.replaceChildren(...parts.map((part) => this.tag(part, part.key === key)));
    if (focused) this.tags.querySelector(`[data-part="${focused}"]`)?.focus();
  }

  tag({ key, label }, chosen) {
    const tag = make("button", "part-tag", label);
    tag.type = "button";
    tag.dataset.part = key;
    tag.setAttribute("role", "tab");
    tag.setAttribute("aria-selected", chosen);
    tag.addEventListener("click", () => this.choose(key));
    if (this.piece.kind !== "chat" || !movable(key)) return tag;
    tag.title = "Drag, or Alt with arrows, to put it elsewhere in the line";
    tag.draggable = true;
    tag.addEventListener("dragstart", (event) => event.dataTransfer.setData("text/part", key));
    tag.addEventListener("dragover", (event) => event.dataTransfer.types.includes("text/part") && event.preventDefault());
    tag.addEventListener("drop", (event) => this.drop(event.dataTransfer.getData("text/part"), key));
    tag.addEventListener("keydown", (event) => {
      const by = event.altKey && { ArrowLeft: -1, ArrowRight: 1 }[event.key];
      if (!by) return;
      event.preventDefault();
      this.shift(key, by);
    });
    return tag;
  }

  keys() {
    return [...this.tags.querySelectorAll("[data-part]")].map((tag) => tag.dataset.part).filter(movable);
  }

  drop(key, before) {
    if (key === before) return;
    const keys = this.keys();
    const at = keys.indexOf(before);
    const next = keys.filter((one) => one !== key);
    next.splice(at, 0, key);
    this.specimen.ordered(next);
  }

  shift(key, by) {
    const keys = this.keys();
    const at = keys.indexOf(key) + by;
    if (at < 0 || at >= keys.length) return;
    const next = keys.filter((one) => one !== key);
    next.splice(at, 0, key);
    this.specimen.ordered(next);
  }

  // chosen: pieces
  show(document_, chosen) {
    this.document = document_;
    const [piece] = chosen;
    const one = chosen.length === 1;
    document.querySelector("#for-piece").hidden = !one;
    document.querySelector("#for-many").hidden = chosen.length < 2;
    document.querySelector("#for-stage").hidden = chosen.length > 0;
    for (const field of this.frame) field.show(document_[field.name]);
    if (chosen.length > 1) this.showMany(chosen);
    if (!one) return;
    this.piece = piece;
    document.querySelector("#open-looks").hidden = !dressed(piece);
    document.querySelector("#piece-title").textContent = this.tell.called(piece);
    for (const field of this.where) field.show(piece[field.name]);
    this.showPart();
    this.showCommon();
    this.showFit();
    this.specimen.show(piece);
  }

  showMany(chosen) {
    document.querySelector("#many-title").textContent = `${chosen.length} pieces`;
    const groups = new Set(chosen.map((piece) => piece.group || ""));
    document.querySelector("#group").disabled = groups.size === 1 && !groups.has("");
    document.querySelector("#ungroup").disabled = groups.size === 1 && groups.has("");
  }

  showCommon() {
    const { kind } = this.piece;
    const box = document.querySelector("#common");
    let built = this.built.get(`${kind}/`);
    if (!built) {
      const rows = this.rows(kind, this.kinds[kind].fields.form ? [...COMMON, "form"] : COMMON);
      built = { rows, box: make("div", "rows", ...rows.map((row) => row.element)) };
      this.built.set(`${kind}/`, built);
    }
    if (box.firstElementChild !== built.box) box.replaceChildren(built.box);
    for (const row of built.rows) row.show(this.piece[row.name], this.document);
  }

  // Only where there is a space to fit to.
  showFit() {
    const spaces = this.document.pieces.filter((piece) => piece.kind === "space" && piece.id !== this.piece.id);
    const select = document.querySelector("#fit-to");
    document.querySelector("#fit-row").hidden = spaces.length === 0;
    const drawn = spaces.map((space) => `${space.id}${this.tell.called(space)}`).join();
    if (select.dataset.drawn === drawn) return;
    select.dataset.drawn = drawn;
    select.replaceChildren(...spaces.map((space) => new Option(this.tell.called(space), space.id)));
  }
}

function folded(title, elements) {
  return make("details", "more", make("summary", "", title), make("div", "rows", ...elements));
}
