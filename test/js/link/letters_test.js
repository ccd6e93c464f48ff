import assert from "node:assert/strict";
import { test } from "node:test";
import { eachOnAPage, page } from "../support/page.js";
import { MOTION } from "../support/cards.js";
import { make } from "../../../assets/js/house/elements.js";
import { countedTo, move } from "../../../assets/js/link/letters.js";

eachOnAPage();

function moved(how, ...words) {
  const ways = [];
  page.window.Element.prototype.animate = function (_, { delay, duration }) {
    const way = { text: this.textContent, delay, duration };
    ways.push(way);
    return way;
  };
  const texts = words.map(([kind, text]) => make("bdi", kind === "text" ? "" : `alert-${kind}`, text));
  // What a browser walks through: its texts in their order.
  globalThis.NodeFilter = { SHOW_TEXT: 4 };
  const root = make("p", "alert-words", ...texts);
  page.document.createTreeWalker = () => {
    const left = texts.map((bdi) => bdi.firstChild);
    return {
      currentNode: null,
      nextNode() {
        this.currentNode = left.shift();
        return Boolean(this.currentNode);
      },
    };
  };
  move(root, how, MOTION, { begins: 500, elapsed: 100 });
  return [root, ways];
}

test("letters come one after the other, and the words stay what they are", () => {
  const [root, ways] = moved({ by: "letters" }, ["name", "áb"], ["text", " gave "]);
  assert.deepEqual(
    ways.map(({ text, delay }) => [text, delay]),
    [
      ["á", 500],
      ["b", 538],
      ["g", 576],
      ["a", 614],
      ["v", 652],
      ["e", 690],
    ],
  );
  assert.deepEqual([root.textContent, ways[0].currentTime], ["áb gave ", 100]);
});

test("letters that join stay together, whatever is asked for", () => {
  const [root, ways] = moved({ by: "letters" }, ["name", "هدهد الفجر"]);
  assert.deepEqual(
    ways.map(({ text }) => text.trim()),
    ["هدهد", "الفجر"],
  );
  assert.equal(root.textContent, "هدهد الفجر");
});

test("however long words are, all of them have soon come", () => {
  const [, ways] = moved({ by: "letters" }, ["name", "w".repeat(300)]);
  assert.ok(ways.at(-1).delay < 500 + 2400);
});

test("words wave without coming by letters", () => {
  const [root, ways] = moved({ wave: 1 }, ["name", "ab"]);
  assert.deepEqual([ways.length, root.querySelectorAll(".waves").length], [0, 2]);
});

test("figures count up in the form they have, and nothing else changes", () => {
  assert.deepEqual(
    ["5.00 EUR", "12 months", "1,50 kr", "sparks"].map((text) => countedTo(text, 0.5)),
    ["2.50 EUR", "6 months", "0,75 kr", "sparks"],
  );
  const [root] = moved({ by: "counted" }, ["name", "h00t"], ["amount", "50.00 EUR"]);
  assert.deepEqual([root.querySelector(".alert-name").textContent, root.querySelector(".alert-amount").textContent], ["h00t", "0.00 EUR"]);
});
