import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { CUE_FIELDS } from "../support/cards.js";
import { all, called, eachOnAPage, find, page, pressable, said, serve, settled, type } from "../support/page.js";
import { Edit } from "../../../assets/js/cues/edit.js";

eachOnAPage({
  html: `<main data-feeds="[]" data-sounds='[["","none"],["9","Gong"]]' data-films='[["","none"]]' data-voices='[["en-gb","English"],["ja","Japanese"]]'></main>
    <section id="edit"></section><div id="messages"></div>`,
});

const NAMES = ["name", "amount_from", "words", "volume", "sound", "film"];
const CUE = {
  id: "c1",
  kind: "tip",
  name: "Big tip",
  words: "{name} gave {amount}",
  amount_from: "10",
  volume: "80",
  sound: "9",
  picture: null,
};
const OTHER = { id: "c2", kind: "tip", name: "Newcomer", words: "{name} is new", picture: "abc" };

let edit;
let done;

beforeEach(() => {
  done = [];
  const told =
    (name) =>
    (...values) =>
      done.push([name, ...values]);
  serve({ "/dress/cues": (values, path) => ({ path, values }) });
  edit = new Edit(
    find("#edit"),
    { fields: CUE_FIELDS, kinds: { tip: "tips" } },
    { changed: told("changed"), removed: told("removed"), close: told("close"), say: told("say") },
  );
});

const field = (name) => find(`[data-property="${name}"] input, [data-property="${name}"] textarea, [data-property="${name}"] select`);

test("where no cue is chosen the sheet says what to do", () => {
  edit.show(null);
  assert.equal(find("#edit").textContent, "Choose a cue to set it.");
  assert.equal(find("#edit").className, "");
});

test("a cue stands there with what is set, the first groups open", () => {
  edit.show(CUE);
  assert.equal(find("#edit-title").textContent, "Big tip");
  assert.deepEqual(
    NAMES.map((name) => field(name).value),
    ["Big tip", "10", "{name} gave {amount}", "80", "9", ""],
  );
  assert.deepEqual(
    all("details")
      .filter((one) => one.open)
      .map((one) => one.querySelector("summary").textContent),
    ["For which", "What plays"],
  );
  assert.deepEqual(
    [...field("sound").options].map((option) => option.textContent),
    ["none", "Gong"],
  );
});

test("the same cue told anew keeps its fields, another one gets fields of its own", () => {
  edit.show(CUE);
  const words = field("words");
  all("details").at(-1).open = true;
  edit.show({ ...CUE, words: "anew" });
  assert.equal(field("words"), words);
  assert.equal(words.value, "anew");
  assert.ok(all("details").at(-1).open);
  edit.show(OTHER);
  assert.notEqual(field("words"), words);
  assert.equal(field("amount_from").value, "");
  assert.equal(find("#cue-picture img").getAttribute("src"), "/pictures/abc-2.webp");
});

test("what is typed is told of this cue alone, and the answer is the sheet", async () => {
  edit.show(CUE);
  type(field("words"), "Thanks, {name}");
  await settled();
  assert.deepEqual(page.asked.at(-1), ["/dress/cues/cues/c1", { words: "Thanks, {name}" }]);
  assert.equal(done.at(-1)[0], "changed");
});

test("it is moved, taken off and closed", async () => {
  edit.show(CUE);
  for (const name of ["Ask it before the one above", "Ask it after the one below", "Take this cue off the sheet", "Done with this cue"]) {
    called(name).click();
    await settled();
  }
  assert.deepEqual(page.asked, [
    ["/dress/cues/cues/c1/move", { by: "-1" }],
    ["/dress/cues/cues/c1/move", { by: "1" }],
    ["/dress/cues/cues/c1/remove", {}],
  ]);
  assert.deepEqual(
    done.map(([name, value]) => [name, value?.id]),
    [
      ["changed", undefined],
      ["changed", undefined],
      ["removed", "c1"],
      ["close", undefined],
    ],
  );
});

test("a refusal is said, and nothing is taken as changed", async () => {
  serve({ "/dress/cues": { error: "A cue needs a name." } });
  edit.show(CUE);
  type(field("name"), "");
  called("Take this cue off the sheet").click();
  await settled();
  assert.deepEqual(said(), ["A cue needs a name.", "A cue needs a name."]);
  assert.deepEqual(done, []);
});

test("a picture is sent, and taken away again", async () => {
  const forms = [];
  globalThis.fetch = async (path, { body }) => {
    forms.push([path, [...body.keys()]]);
    return { ok: true, json: async () => ({}) };
  };
  globalThis.FormData = page.window.FormData;
  edit.show(CUE);
  await edit.putPicture(new page.window.File(["x"], "gong.png"));
  pressable("Without").click();
  await settled();
  assert.deepEqual(forms, [
    ["/dress/cues/cues/c1/picture", ["file"]],
    ["/dress/cues/cues/c1/picture", []],
  ]);
});

test("its voice is heard, and given to all of its kind, which is told", async () => {
  edit.show(CUE);
  pressable("Hear it").click();
  assert.deepEqual(done.at(-1), ["say", CUE]);
  pressable("The same for all tips").click();
  await settled();
  assert.deepEqual(
    [page.asked.at(-1)[0], done.at(-1)[0], said()],
    ["/dress/cues/cues/c1/spoken-alike", "changed", ["All tips are said like that."]],
  );
});

test("what is pressed in the picture is set here: its group opens, its field is in hand", () => {
  edit.show(CUE);
  edit.openAt("type_name_colour");
  const row = find('[data-property="type_name_colour"]');
  assert.equal(row.closest("details").open, true);
  assert.ok(row.contains(document.activeElement));
  edit.openAt("picture");
  assert.ok(find(".cue-picture-row").contains(document.activeElement));
});
