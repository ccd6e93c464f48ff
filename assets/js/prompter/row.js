// One line as a row: its words are text nodes, whatever they are.
import { icon, make } from "../house/elements.js";
import { place } from "../house/kept_rows.js";
import { clock, clockSeconds } from "../house/words.js";
import { badgesOf, fragmentsOf } from "../link/line.js";
import { markOf } from "../link/marks.js";

const EMOTE = { height: 22, still: matchMedia("(prefers-reduced-motion: reduce)").matches };
const STATES = {
  pulled: "pulled",
  deleted: "deleted there",
  left: "not let go",
  washed: "no room",
  off: "",
  waits: "held",
  draft: "draft only",
  nowhere: "",
};
const CHIPS = { pulled: "off", deleted: "off", left: "mind", washed: "told", off: "off", waits: "mind", draft: "told" };

// Of those nothing is on the picture, however it would be written there.
const UNSEEN = new Set(["off", "pulled", "deleted"]);

export function nameOf(card) {
  const name = make("bdi", "name", card.n);
  name.style.setProperty("--night", card.c);
  name.style.setProperty("--day", card.day ?? card.c);
  return name;
}

export function wordsOf(card) {
  const text = make("span", "text");
  text.dir = "auto";
  if (card.e) text.append(make("span", "event", card.e), " ");
  if (card.v && !card.e) text.append(make("span", "paid", card.v), " ");
  text.append(...fragmentsOf(card.f, EMOTE));
  return text;
}

function tags(card) {
  const words = card.rule && (card.s === "off" || card.s === "left") ? card.rule : STATES[card.s];
  const all = [];
  if (words) all.push(make("span", `chip tag ${CHIPS[card.s] ?? ""}`, words));
  if (card.as && !UNSEEN.has(card.s)) all.push(make("span", "chip tag told", "shown as"), make("bdi", "as", card.as));
  for (const mark of card.mk ?? []) all.push(make("span", "chip tag well", icon("check"), mark));
  if (card.ed) all.push(make("span", "chip tag told", "edited"));
  if (card.at?.includes("first")) all.push(make("span", "chip tag told", "first line"));
  return all;
}

export function rowOf(card, { seconds = false } = {}) {
  const row = make("article", `row ${card.s}`);
  row.dataset.line = card.i;
  fill(row, card, { seconds });
  return row;
}

// What can be done with it stays where it is, and so does a press on that.
export function fill(row, card, { seconds = false } = {}) {
  row.className = `row ${card.s}${card.at?.includes("mention") ? " mention" : ""}${(card.mk ?? []).includes("read") ? " done" : ""}${row.classList.contains("chosen") ? " chosen" : ""}`;
  const reply = card.r ? make("span", "reply", "answers ", make("bdi", "", card.r.n ?? "an earlier line")) : null;
  const words = make(
    "p",
    "",
    ...badgesOf(card.b, EMOTE),
    nameOf(card),
    " ",
    reply,
    wordsOf(card),
    ...tags(card).flatMap((tag) => [" ", tag]),
  );
  const bars = [...row.children].filter((one) => one.classList.contains("actions"));
  place(row, [make("time", "figure", seconds ? clockSeconds(card.t) : clock(card.t)), markOf(card.m), words, ...bars]);
}
