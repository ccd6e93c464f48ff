// While a stage is edited: what an empty piece will look like, marked as a sample, and which pieces have no room for what they show.
import { picture } from "../link/main.js";
import { lacksRoom } from "./lacks_room.js";

const EVERY_MS = 1000;

// Whether a piece shows nothing of its own, and whether it is the sample that it shows.
const STATES = {
  alerts: (piece) => [!piece.shown, piece.shown?.card.i === "sample"],
  shout_out: (piece) => [!piece.shown, piece.shown?.id === "sample"],
  goal: (piece, sample) => [!(piece.goal?.share > 0), piece.goal === sample],
  captions: (piece) => [piece.standing.size === 0, piece.standing.has("sample")],
  portraits: (piece) => [piece.figures.size === 0, piece.row.querySelector('[src*="/assets/figure"]') !== null],
  flurry: (piece) => [piece.flying.size === 0, false],
};

// told: by piece, the sample it was given last
export function showSample(piece, told) {
  const { kind, sample } = piece.given;
  if (!sample || !STATES[kind]) return;
  const [how, card, called] = sample;
  const known = told.get(piece);
  const words = JSON.stringify(sample);
  const [bare, ours] = STATES[kind](piece, known?.card);
  if (bare || (ours && known?.words !== words)) {
    if (ours) piece[how]?.(EMPTY[how]);
    piece[how]?.(card);
    told.set(piece, { words, card });
  }
  if (STATES[kind](piece, card)[1] || (kind === "flurry" && bare)) {
    if (piece.element.dataset.sample !== called) piece.element.dataset.sample = called;
  } else delete piece.element.dataset.sample;
}

// What takes a sample off again.
const EMPTY = { alert: null, shout: null, live: { lines: [] }, voices: { p: [] } };

export function look(pieces, told) {
  for (const piece of pieces) {
    showSample(piece, told);
    piece.element.toggleAttribute("data-no-room", lacksRoom(piece.element));
  }
}

const told = new WeakMap();
if (picture) setInterval(() => document.hidden || look(picture.pieces.values(), told), EVERY_MS);
