// Where a box comes to rest while it is moved or sized: edges, centres, thirds and a margin of the stage, and the edges
// and centres of other pieces. Draws the guides, with the distances to what is next to it.
import { make } from "../house/elements.js";

const NEAR_PX = 6;
// A gap that is too narrow for its figure.
const NARROW_PX = 18;
const MARGIN = 0.022;
const AXES = [
  ["x", "width", "v"],
  ["y", "height", "h"],
];

export class Snapping {
  constructor(hands) {
    this.hands = hands;
    this.marks = [];
  }

  // document, ids of what moves, pixels of the screen for one of the stage
  begin(document_, moving, ratio) {
    this.stage = document_;
    this.ratio = ratio;
    this.others = document_.pieces.filter((piece) => !moving.has(piece.id) && !piece.hidden);
    const margin = Math.round(Math.min(document_.width, document_.height) * MARGIN);
    this.lines = Object.fromEntries(
      AXES.map(([from, extent]) => {
        const size = document_[extent];
        const own = [0, margin, size / 3, size / 2, (size * 2) / 3, size - margin, size];
        const theirs = this.others.flatMap((piece) => [piece[from], piece[from] + piece[extent] / 2, piece[from] + piece[extent]]);
        return [from, [...own, ...theirs]];
      }),
    );
  }

  // moves: which of its edges move, by axis: [0, 0.5, 1] for all of it
  rest(box, moves) {
    const rested = { ...box };
    const found = [];
    for (const [from, extent, kind] of AXES) {
      const best = this.nearest(box, from, extent, moves[from]);
      if (!best) continue;
      if (moves[from].length === 3) rested[from] = Math.round(box[from] + best.by);
      else Object.assign(rested, sized(box, from, extent, moves[from][0], best.by));
      found.push([kind, best.line]);
    }
    this.draw(found, rested);
    return rested;
  }

  nearest(box, from, extent, parts) {
    let best = null;
    for (const part of parts) {
      const at = box[from] + box[extent] * part;
      for (const line of this.lines[from]) {
        const by = line - at;
        if (Math.abs(by) * this.ratio <= NEAR_PX && (!best || Math.abs(by) < Math.abs(best.by))) best = { by, line };
      }
    }
    return best;
  }

  draw(found, box) {
    this.used = 0;
    for (const [kind, at] of found) {
      const [x, y] = kind === "v" ? [at * this.ratio, 0] : [0, at * this.ratio];
      this.mark(`guide ${kind}`, x, y, null, "");
    }
    for (const [from, extent, kind] of AXES) this.distances(box, from, extent, kind);
    for (const unused of this.marks.slice(this.used)) unused.hidden = true;
  }

  // To the nearest neighbours on both sides, or the stage's edges.
  distances(box, from, extent, kind) {
    const [across, acrossExtent] = kind === "v" ? ["y", "height"] : ["x", "width"];
    const beside = this.others.filter(
      (piece) => piece[across] < box[across] + box[acrossExtent] && piece[across] + piece[acrossExtent] > box[across],
    );
    const before = Math.max(0, ...beside.map((piece) => piece[from] + piece[extent]).filter((end) => end <= box[from]));
    const after = Math.min(this.stage[extent], ...beside.map((piece) => piece[from]).filter((begin) => begin >= box[from] + box[extent]));
    const middle = box[across] + box[acrossExtent] / 2;
    this.distance(before, box[from], middle, kind);
    this.distance(box[from] + box[extent], after, middle, kind);
  }

  distance(begin, end, across, kind) {
    const length = Math.round(end - begin);
    if (length * this.ratio < NARROW_PX) return;
    const [x, y] = kind === "v" ? [begin, across] : [across, begin];
    this.mark(`distance ${kind}`, x * this.ratio, y * this.ratio, length * this.ratio, `${length}`);
  }

  // The same few elements are moved about: making new ones each time would cost a frame.
  mark(className, x, y, length, words) {
    let mark = this.marks[this.used];
    if (!mark) {
      mark = make("div", "", make("span"));
      this.marks.push(mark);
      this.hands.append(mark);
    }
    this.used += 1;
    if (mark.className !== className) {
      mark.className = className;
      mark.style.width = mark.style.height = "";
    }
    mark.hidden = false;
    mark.style.transform = `translate(${Math.round(x)}px, ${Math.round(y)}px)`;
    if (length !== null) mark.style[className.endsWith("v") ? "width" : "height"] = `${Math.round(length)}px`;
    if (mark.firstChild.textContent !== words) mark.firstChild.textContent = words;
  }

  clear() {
    for (const mark of this.marks) mark.hidden = true;
  }
}

function sized(box, from, extent, part, by) {
  if (part === 1) return { [extent]: Math.round(box[extent] + by) };
  return { [from]: Math.round(box[from] + by), [extent]: Math.round(box[extent] - by) };
}
