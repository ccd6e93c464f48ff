import assert from "node:assert/strict";
import { test } from "node:test";
import { asOne } from "../../../assets/js/prompter/as_one.js";
import { Lines } from "../../../assets/js/prompter/lines.js";

const STATES = ["aired", "held", "pulled", "deleted", "nowhere"];
const FRAMES = 60;

// Numbers that are the same each time.
function chance(seed) {
  let at = seed;
  return (below) => {
    at = (at * 1103515245 + 12345) % 2147483648;
    return Math.floor((at / 2147483648) * below);
  };
}

// What a prompter is told of lines that come, are drawn anew, move and are marked, several of it in a frame.
function frames(seed) {
  const pick = chance(seed);
  const cards = [];
  return Array.from({ length: FRAMES }, () => {
    const frame = { lines: [], states: {}, marks: {}, held: [{ i: pick(9) }] };
    for (let times = pick(6); times > 0; times -= 1) {
      const card = cards[pick(cards.length)];
      const what = card ? pick(4) : 0;
      if (what === 0) cards.push({ i: cards.length + 1, s: STATES[pick(5)], text: "" });
      if (what === 1) frame.states[card.i] = card.s = STATES[pick(5)];
      if (what === 2) frame.marks[card.i] = card.mk = pick(2) ? ["read"] : [];
      if (what === 3) card.text += "again ";
      const drawn = what === 0 ? cards.at(-1) : card;
      if (what === 0 || what === 3) frame.lines = [...frame.lines.filter((one) => one.i !== drawn.i), drawn];
    }
    return structuredClone({ ...frame, lines: frame.lines });
  });
}

// As the page takes them.
function taken(all) {
  const lines = new Lines();
  for (const frame of all) {
    for (const card of frame.lines) if (lines.byId.has(card.i)) lines.change(card.i, card);
    lines.add(frame.lines.map((card) => ({ ...card })));
    for (const [id, s] of Object.entries(frame.states)) lines.change(id, { s });
    for (const [id, mk] of Object.entries(frame.marks)) lines.change(id, { mk });
  }
  return lines.all;
}

test("many frames at once come to the same as one after another", () => {
  for (let seed = 1; seed <= 40; seed += 1) {
    const all = frames(seed);
    const known = seed % FRAMES;
    assert.deepEqual(taken([...all.slice(0, known), asOne(all.slice(known))]), taken(all), `seed ${seed}`);
  }
});

test("of what is told as a whole the last counts, what was done is all told, and nothing is told that no frame has", () => {
  const told = asOne([
    { at: "b:1", held: [{ i: 1 }], deeds: [{ id: 1 }, { id: 2 }] },
    { at: "b:2", held: [], pins: [], large: null },
    { at: "b:3", deeds: [{ id: 1, undone: "Ann" }] },
  ]);
  assert.deepEqual(told, {
    at: "b:3",
    lines: [],
    states: {},
    marks: {},
    held: [],
    pins: [],
    large: null,
    deeds: [{ id: 1, undone: "Ann" }, { id: 2 }],
  });
  assert.equal("deeds" in asOne([{ held: [] }]), false);
});
