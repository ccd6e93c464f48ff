import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, eachOnAPage, find, page, pressable, said, serve, settled } from "../support/page.js";
import { Copies } from "../../../assets/js/stage/copies.js";

eachOnAPage({
  html: `<div id="messages"></div><dialog id="copies"><div id="copy-what"><input type="radio" name="what" value="stage" checked><input type="radio" name="what" value="look">
    <input type="radio" name="what" value="show"></div><a id="copy-json"></a><a id="copy-zip"></a><textarea id="copy-text"></textarea>
    <label id="copy-file-box"><input type="file" id="copy-file"></label><textarea id="copy-paste"></textarea><div id="copy-told"></div></dialog>`,
});

let chosen;
let copies;
let texts;
let gone;
let undone;

beforeEach(() => {
  globalThis.FormData = page.window.FormData;
  chosen = "p1";
  texts = {};
  gone = [];
  undone = 0;
  globalThis.location = { assign: (path) => gone.push(path) };
  const undo = () => {
    undone += 1;
  };
  copies = new Copies(
    find("#copies"),
    (path) => `/stage/4/${path}`,
    () => chosen,
    undo,
  );
});

const TOLD = { kind: "stage", holds: ["3 pieces"], missing: ["a face <b>Larch</b>"], changes: [] };
const answers = (more = {}) => serve({ "/stage/4/copy-in/tell": TOLD, "/stage/4/copy-in": {}, ...more });
function choose(what) {
  for (const radio of all("#copy-what input")) radio.checked = radio.value === what;
  find("#copy-what").dispatchEvent(new globalThis.Event("change"));
}
async function paste(text) {
  find("#copy-paste").value = text;
  find("#copy-paste").dispatchEvent(new globalThis.Event("input"));
  await settled();
}
// Each text comes when the test lets it.
function texting() {
  globalThis.fetch = (path) =>
    new Promise((done) => {
      texts[new URLSearchParams(path.split("?")[1]).get("what")] = (text, ok = true) => done({ ok, text: async () => text });
    });
}

test("a copy is there as a file, as a file with what belongs to it, and as text", async () => {
  texting();
  copies.open();
  texts.stage('{"stage":1}');
  await settled();
  assert.deepEqual(
    ["#copy-json", "#copy-zip"].map((link) => find(link).getAttribute("href")),
    ["/stage/4/copy?what=stage&as=json&piece=p1", "/stage/4/copy?what=stage&as=zip&piece=p1"],
  );
  assert.deepEqual([find("#copies").open, find("#copy-text").value], [true, '{"stage":1}']);
});

test("a text that comes late is not shown for what was chosen since", async () => {
  texting();
  copies.open();
  choose("show");
  texts.show("the show");
  await settled();
  texts.stage("the stage");
  await settled();
  assert.equal(find("#copy-text").value, "the show");
  choose("look");
  texts.look("sorry", false);
  await settled();
  assert.equal(find("#copy-text").value, "");
});

test("a look is offered of a piece alone", () => {
  texting();
  chosen = null;
  copies.open();
  assert.equal(find("[value=look]").disabled, true);
  chosen = "p1";
  copies.open();
  assert.equal(find("[value=look]").disabled, false);
});

test("what a copy holds, lacks and would change is told before anything is done", async () => {
  answers();
  await paste('{"bavard":1}');
  assert.deepEqual(page.asked, [["/stage/4/copy-in/tell", { text: '{"bavard":1}', piece: "p1" }]]);
  assert.equal(find("#copy-told").textContent, "It holds3 piecesMissinga face <b>Larch</b>As another stageIn the place of this draft");
  await paste("  ");
  assert.deepEqual([find("#copy-told").textContent, page.asked.length], ["", 1]);
});

test("each kind of copy can be taken in its own ways", async () => {
  const ways = async (kind) => {
    answers({ "/stage/4/copy-in/tell": { ...TOLD, kind } });
    await paste(kind);
    return all("#copy-told button").map((one) => one.textContent);
  };
  assert.deepEqual(await ways("stage"), ["As another stage", "In the place of this draft"]);
  assert.deepEqual(await ways("look"), ["Put it on the chosen piece"]);
  assert.deepEqual(await ways("show"), ["As more stages", "With its gate and cues too"]);
});

test("what is told of a file is not told of the one that was given after it", async () => {
  let slow;
  const late = new Promise((done) => {
    slow = done;
  });
  answers({ "/stage/4/copy-in/tell": (form) => (form.text === "first" ? late : { ...TOLD, holds: ["second"] }) });
  await paste("first");
  await paste("second");
  slow({ ...TOLD, holds: ["first"] });
  await settled();
  assert.match(find("#copy-told").textContent, /^It holdssecond/);
});

test("taken into the draft it can be undone, as another stage it is gone to", async () => {
  answers();
  await paste("x");
  pressable("In the place of this draft").click();
  await settled();
  assert.deepEqual(page.asked.at(-1), ["/stage/4/copy-in", { text: "x", piece: "p1", into: "here" }]);
  assert.equal(gone.length, 0);
  pressable("Undo").click();
  assert.equal(undone, 1);
  pressable("As another stage").click();
  await settled();
  assert.deepEqual(gone, ["/stage"]);
});

test("a file is given by a drop or a choice, and one that is refused leaves the dialog open", async () => {
  answers({ "/stage/4/copy-in": { error: "There is no room for another stage." } });
  const file = new page.window.File(["x"], "stage.zip");
  copies.dialog.showModal();
  find("#copy-file-box").dispatchEvent(
    Object.assign(new globalThis.Event("drop", { cancelable: true }), { dataTransfer: { files: [file] } }),
  );
  await settled();
  assert.equal(page.asked[0][1].file.name, "stage.zip");
  pressable("As another stage").click();
  await settled();
  assert.deepEqual([said(), find("#copies").open, gone], [["There is no room for another stage."], true, []]);
});
