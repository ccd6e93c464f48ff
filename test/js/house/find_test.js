import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, eachOnAPage, find, key, page, serve, settled } from "../support/page.js";
import { byKey, Find } from "../../../assets/js/house/find.js";

eachOnAPage({
  html: `<dialog id="find-anything"><form><input id="find-words"><p id="find-said"></p><ul id="find-list"></ul></form></dialog>`,
  path: "/stage/7",
});

const FOUND = [
  { kind: "setting", label: "Text size", where: "<b>Chat</b>", at: "/stage/7#chat1.text_size_px" },
  { kind: "station", label: "Air", at: "/links" },
];
let finder;
let pressed;

beforeEach(() => {
  pressed = [];
  serve({ "/find": { found: FOUND } });
  finder = new Find(find("#find-anything"), {
    u: ["Undo the edit", () => pressed.push("u")],
    "?": ["Show these keys", () => pressed.push("?")],
  });
  finder.sheet.showModal = () => {};
  finder.sheet.close = () => pressed.push("closed");
});

async function typed(words) {
  find("#find-words").value = words;
  find("#find-words").dispatchEvent(new page.window.Event("input"));
  page.clock.pass(200);
  await settled();
}
const rows = () => all("#find-list li").map((row) => [row.querySelector(".chip").textContent, row.querySelector("bdi").textContent]);
const chosen = () => find('[aria-selected="true"] bdi').textContent;

test("what is found stands in a row each, what has a key here before it, and words stay words", async () => {
  await typed("undo");
  assert.deepEqual(rows(), [
    ["key", "Undo the edit"],
    ["setting", "Text size"],
    ["station", "Air"],
  ]);
  assert.equal(find(".find-where b"), null);
  assert.deepEqual(page.asked.at(-1)[0], "/find?q=undo&stage=7");
});

test("arrows choose among them and no further, and what has a key does what it does", async () => {
  await typed("undo");
  for (const name of ["ArrowUp", "ArrowDown", "ArrowDown", "ArrowDown"]) key(name, { target: find("#find-words") });
  assert.equal(chosen(), "Air");
  for (const name of ["ArrowUp", "ArrowUp"]) key(name, { target: find("#find-words") });
  assert.equal(chosen(), "Undo the edit");
  find("#find-list li").click();
  assert.deepEqual(pressed, ["closed", "u"]);
});

test("only the answer to what stands there now is shown", async () => {
  const answers = [];
  serve({ "/find": () => new Promise((done) => answers.push(done)) });
  await typed("one");
  await typed("two");
  answers[1]({ found: FOUND });
  await settled();
  answers[0]({ found: [] });
  await settled();
  assert.equal(rows().length, 2);
});

test("nothing is said as nothing, and what cannot be reached as that", async () => {
  serve({ "/find": { found: [] } });
  await typed("xyzzy");
  assert.equal(find("#find-said").textContent, "Nothing is called that.");
  await typed("");
  assert.deepEqual([find("#find-said").textContent, rows()], ["", []]);
  serve({ "/find": { error: "Bavard cannot be reached." } });
  await typed("air");
  assert.equal(find("#find-said").textContent, "Bavard cannot be reached.");
});

test("keys are found by all of the words that stand there, without accents", () => {
  const table = { a: ["Élan to the left"], b: ["To the right"] };
  assert.deepEqual(
    byKey(table, "LEFT elan").map(({ where }) => where),
    ["a"],
  );
  assert.deepEqual([byKey(table, ""), byKey(table, "left right")], [[], []]);
});
