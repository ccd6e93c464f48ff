import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { eachOnAPage, page, serve } from "../support/page.js";

eachOnAPage({ html: '<div id="messages"></div>' });

let Edits;
let answers;

beforeEach(async () => {
  ({ Edits } = await import("../../../assets/js/stage/edits.js"));
  answers = [];
  serve({ "/stage/7/edits": (edit) => new Promise((done) => answers.push(() => done({ edit }))) });
});

const sent = () => page.asked.map(([, edit]) => edit);
const turn = () => new Promise((done) => setImmediate(done));

async function answer() {
  await turn();
  answers.shift()();
  await turn();
}

test("one after another, in their order", async () => {
  const edits = new Edits(7);
  const first = edits.send({ do: "set", piece: "a", values: { x: 1 } });
  edits.send({ do: "remove", piece: "b" });
  await turn();
  assert.equal(sent().length, 1);
  assert.equal(edits.quiet, false);
  await answer();
  assert.deepEqual((await first).values, { x: 1 });
  await answer();
  assert.deepEqual(
    sent().map((edit) => edit.do),
    ["set", "remove"],
  );
  assert.equal(edits.quiet, true);
});

test("within a gesture only the newest waits, and nothing it set is lost", async () => {
  const edits = new Edits(7);
  const gesture = edits.gesture();
  const set = (values) => edits.send({ do: "set", piece: "a", values, gesture });
  const all = [set({ x: 1 }), set({ x: 2, y: 5 }), set({ x: 3 }), set({ width: 9 })];
  await answer();
  await answer();
  await Promise.all(all);
  assert.deepEqual(
    sent().map((edit) => edit.values),
    [{ x: 1 }, { x: 3, y: 5, width: 9 }],
  );
});

test("other gestures and other deeds are not joined", async () => {
  const edits = new Edits(7);
  const [one, other] = [edits.gesture(), edits.gesture()];
  assert.notEqual(one, other);
  edits.send({ do: "set", values: { x: 1 }, gesture: one });
  edits.send({ do: "set", values: { x: 2 }, gesture: other });
  edits.send({ do: "many", edits: [1], gesture: other });
  edits.send({ do: "many", edits: [2], gesture: other });
  for (let time = 0; time < 3; time += 1) await answer();
  assert.deepEqual(
    sent().map((edit) => edit.edits ?? edit.values),
    [{ x: 1 }, { x: 2 }, [2]],
  );
});

test("what is refused is said, gives nothing, and those behind it go on", async () => {
  serve({ "/stage/7/edits": (edit) => (edit.piece === "a" ? { error: "Width goes from 16 to 8000 px." } : { edit }) });
  const edits = new Edits(7);
  const [refused, fine] = [edits.send({ do: "set", piece: "a" }), edits.send({ do: "set", piece: "b" })];
  assert.equal(await refused, undefined);
  assert.equal((await fine).piece, "b");
  assert.match(page.document.querySelector("#messages").textContent, /Width goes from 16 to 8000 px/);
});
