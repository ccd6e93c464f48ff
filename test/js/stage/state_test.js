import assert from "node:assert/strict";
import { test } from "node:test";
import { eachOnAPage, key, page } from "../support/page.js";
import { Order } from "../../../assets/js/stage/order.js";
import { Draft } from "../../../assets/js/stage/state.js";

eachOnAPage({ html: '<div id="order"></div>' });

const told = (pieces, order = pieces.map((piece) => piece.id), id = 7) => ({ id, width: 1920, height: 1080, order, pieces });

test("a draft is told piece by piece, in the order of the stage", () => {
  const draft = new Draft(7);
  assert.equal(draft.take([told([{ id: "a", x: 1 }, { id: "b" }])], true), true);
  draft.take([told([{ id: "a", x: 2 }], ["b", "a"])], false);
  assert.deepEqual(
    draft.document.pieces.map((piece) => [piece.id, piece.x]),
    [
      ["b", undefined],
      ["a", 2],
    ],
  );
  draft.take([told([], ["a"])], false);
  assert.equal(draft.piece("b"), undefined);
});

test("what is told of other stages is not ours", () => {
  const draft = new Draft(7);
  assert.equal(draft.take([told([{ id: "a" }], ["a"], 8)], true), false);
  assert.equal(draft.document, null);
  assert.equal(draft.piece("a"), undefined);
  draft.guess("a", { x: 1 });
});

test("a whole picture forgets what is not in it, and a guess counts until it is told", () => {
  const draft = new Draft(7);
  draft.take([told([{ id: "a", x: 1 }, { id: "b" }])], true);
  draft.guess("a", { x: 5 });
  assert.equal(draft.piece("a").x, 5);
  draft.take([told([{ id: "a", x: 4 }])], true);
  assert.deepEqual([draft.piece("a").x, draft.document.pieces.length], [4, 1]);
});

function order(chosen = []) {
  const deeds = [];
  const made = new Order(
    page.document.querySelector("#order"),
    { chat: { icon: "x" } },
    {
      choose: (id, more) => deeds.push(["choose", id, Boolean(more)]),
      order: (id, at) => deeds.push(["order", id, at]),
      called: (piece) => piece.id.toUpperCase(),
    },
  );
  const pieces = ["a", "b", "c"].map((id) => ({ id, kind: "chat", side: "front" }));
  made.show({ pieces }, new Set(chosen));
  return { made, deeds, pieces, chips: [...page.document.querySelectorAll("[data-order-of]")] };
}

test("pieces are listed from front to back and chosen by a press", () => {
  const { chips, deeds } = order(["b"]);
  assert.deepEqual(
    chips.map((chip) => [chip.textContent, chip.getAttribute("aria-selected")]),
    [
      ["C", "false"],
      ["B", "true"],
      ["A", "false"],
    ],
  );
  chips[0].click();
  chips[2].dispatchEvent(new page.window.MouseEvent("click", { shiftKey: true, bubbles: true }));
  assert.deepEqual(deeds, [
    ["choose", "c", false],
    ["choose", "a", true],
  ]);
});

test("Alt and an arrow puts one elsewhere, an arrow alone does not", () => {
  const { chips, deeds } = order();
  key("ArrowLeft", { target: chips[1], altKey: true });
  key("ArrowRight", { target: chips[1], altKey: true });
  key("ArrowRight", { target: chips[1] });
  assert.deepEqual(deeds, [
    ["order", "b", 2],
    ["order", "b", 0],
  ]);
});

test("what has not changed is not drawn anew, and what is drawn anew keeps the focus", () => {
  const { made, pieces, chips } = order();
  chips[1].focus();
  made.show({ pieces }, new Set());
  assert.equal(page.document.querySelector("[data-order-of=b]"), chips[1]);
  made.show({ pieces }, new Set(["b"]));
  assert.notEqual(page.document.querySelector("[data-order-of=b]"), chips[1]);
  assert.equal(page.document.activeElement.dataset.orderOf, "b");
});
