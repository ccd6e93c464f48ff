// The keys of the Stage.
import { keys } from "../house/keys.js";

// By which a piece of each kind is added, here and in the menu that opens where something was drawn.
export const LETTERS = {
  chat: "c",
  voices: "m",
  portraits: "e",
  room_card: "j",
  alerts: "b",
  goal: "i",
  flurry: "y",
  challenge: "q",
  newest: "n",
  counter: "z",
  shout_out: "x",
  captions: "w",
  picture: "p",
  video: "v",
  text: "t",
  clock: "k",
  now_line: "l",
  space: "s",
};

// Those that other parts of the screen take up by themselves.
const ELSEWHERE = {
  Arrows: ["Move what is chosen 1 px, with Shift 10"],
  "Alt arrows": ["Size it 1 px, with Shift 10"],
  "Shift click": ["Choose one more"],
  "Shift drag": ["On free ground: choose all that is touched"],
  "Alt drag": ["Without snapping"],
  "1 to 9": ["While held: one of the cast talks in this draft"],
};

export function shortcuts({ kinds, add, act, top, choose, openLooks, openRevisions, draft }) {
  const adding = Object.entries(LETTERS).map(([kind, letter]) => [letter, [`Add: ${kinds[kind].label.toLowerCase()}`, () => add(kind)]]);
  keys(Object.fromEntries(adding), {
    // Nobody who types where no field is goes on air by that.
    "Ctrl Enter": ["Put on air", top.putOnAir],
    r: ["Rehearse, or stop", () => document.querySelector("#rehearse").click()],
    o: ["Looks for the chosen chat", openLooks],
    h: ["Revisions", openRevisions],
    "Ctrl z": ["Undo", top.undo],
    "Ctrl y": ["Redo", top.redo],
    "Ctrl d": ["Make another of what is chosen", () => act.duplicate()],
    "Ctrl c": ["Copy what is chosen", () => act.copy()],
    "Ctrl v": ["Put down what was copied, here or on another stage", () => act.paste()],
    "Ctrl a": ["Choose all", () => choose(draft.document.pieces.map((piece) => piece.id))],
    g: ["Group what is chosen", () => act.group()],
    u: ["Ungroup it", () => act.ungroup()],
    "+": ["Bring it one to the front", () => act.orderBy(1)],
    "-": ["Put it one to the back", () => act.orderBy(-1)],
    Delete: ["Take off what is chosen", () => act.remove()],
    Escape: ["Choose nothing", () => choose([])],
    ...ELSEWHERE,
  });
}
