// The sample line in the inspector: drawn as the stage draws it, its parts clicked to be set and dragged into their order.
import { make } from "../house/elements.js";
import { lineOf } from "../link/line.js";
import { loadOwnFaces } from "../link/own_faces.js";
import { VOICE_HITS, voiceSpecimen } from "./voice_specimen.js";

const SIZE_PX = 20;
const CARD = {
  i: 1,
  t: 0,
  n: "kestrel_ann",
  c: "#f3b634",
  p: "#f6e3b0",
  k: "said",
  m: ["circle", "#5fb8d6"],
  f: [
    ["text", "can we see the wing again? "],
    ["emoji", "🪶"],
  ],
  b: [["moderator", "Moderator", null, "M", "#63c58a"]],
  a: [null, "k"],
  h: "05:52",
};
// Where the piece stands changes nothing of the specimen.
const PLACE = /--(?:x|y|width|height): [^;]+;/g;
// What is clicked, and the part that means.
const HITS = [
  [".avatar", "avatar"],
  [".time", "time"],
  [".mark, .badge", "badges"],
  [".name", "name"],
  [".emote, .emoji", "emotes"],
  [".text", "text"],
  [".plate", "plate"],
];
// Parts of the specimen, by the names under which they are ordered.
const ORDERED = { avatar: ["avatar"], time: ["time"], badges: ["mark", "badges"], name: ["name"], text: ["text"] };

export class Specimen {
  // tell: choose(part), order(parts)
  constructor(root, tags, draft, tell) {
    this.root = root;
    this.tags = tags;
    this.draft = draft;
    this.tell = tell;
    this.watch = new MutationObserver(() => this.copy());
    root.addEventListener("click", (event) => {
      const hit = this.hits.find(([selector]) => event.target.closest(selector));
      tell.choose(hit ? hit[1] : this.piece.kind === "voices" ? "arranged" : "stack");
    });
  }

  get hits() {
    return this.piece?.kind === "voices" ? VOICE_HITS : HITS;
  }

  // The piece itself, as the page in the frame draws it.
  original() {
    return this.draft.contentDocument?.querySelector(`[data-piece="${this.piece.id}"]`);
  }

  show(piece) {
    const another = this.piece?.id !== piece.id;
    this.piece = piece;
    this.root.hidden = !["chat", "voices"].includes(piece.kind);
    if (this.root.hidden) return this.watch.disconnect();
    const original = this.original();
    if (!original) return setTimeout(() => this.piece === piece && this.show(piece), 120);
    if (another || this.watched !== original) {
      this.watch.disconnect();
      this.watch.observe(original, { attributes: true, attributeFilter: ["style", "class"] });
      this.watched = original;
    }
    this.copy();
  }

  copy() {
    const original = this.original();
    if (!original) return;
    const drawn = JSON.stringify([
      original.style.cssText.replace(PLACE, ""),
      { ...original.dataset },
      this.piece.parts,
      this.piece.name_place,
      this.piece.marks,
      this.piece.kind,
    ]);
    if (this.drawn === drawn && this.root.firstElementChild) return;
    this.drawn = drawn;
    const box = make("div", `piece ${this.piece.kind} specimen-piece`);
    box.style.cssText = original.style.cssText;
    loadOwnFaces(box.style.cssText);
    for (const [name, value] of Object.entries(original.dataset)) if (name !== "piece") box.dataset[name] = value;
    const zoom = SIZE_PX / Number.parseFloat(original.style.getPropertyValue("--text-size"));
    box.style.zoom = zoom;
    if (this.piece.kind === "voices") box.append(voiceSpecimen(this.piece));
    else this.drawLine(box, original);
    this.root.replaceChildren(box);
    this.light(this.part);
  }

  drawLine(box, original) {
    const colour = this.piece.name_colour === "one" ? original.style.getPropertyValue("--one-name") : CARD.c;
    const options = { height: 28, still: true, parts: this.piece.parts, place: this.piece.name_place };
    const stack = make("div", "stack", lineOf({ ...CARD, c: colour || CARD.c }, options));
    box.append(stack);
    box.dataset.flow = "stack";
    box.dataset.newest = "bottom";
  }

  light(part) {
    this.part = part;
    for (const lit of this.root.querySelectorAll(".lit")) lit.classList.remove("lit");
    const [selector] = this.hits.find(([, name]) => name === part) ?? [];
    if (selector) for (const found of this.root.querySelectorAll(selector)) found.classList.add("lit");
  }

  // Another order of the parts, from the order of the tags.
  ordered(keys) {
    const parts = keys.flatMap((key) => ORDERED[key] ?? []);
    this.tell.order([...parts, ...this.piece.parts.filter((part) => !parts.includes(part))]);
  }
}

export const movable = (part) => part in ORDERED;

// The tags in the order the parts stand in.
export function inOrder(parts, order) {
  const at = (key) => Math.min(...(ORDERED[key] ?? []).map((name) => order.indexOf(name)));
  const fixed = parts.filter(({ key }) => !movable(key));
  return [...parts.filter(({ key }) => movable(key)).sort((one, other) => at(one.key) - at(other.key)), ...fixed];
}
