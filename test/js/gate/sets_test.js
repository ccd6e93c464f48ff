import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, called, eachOnAPage, find, page, pressable, said, serve, settled } from "../support/page.js";
import { Sets } from "../../../assets/js/gate/sets.js";

eachOnAPage({ html: `<fieldset id="sets"></fieldset><details open><div id="set-menu"></div></details><div id="messages"></div>` });

let sets;
let edit;
let taken;

beforeEach(() => {
  taken = [];
  edit = { state: { set: "Calm day", version: "v7" }, busy: false, change: async (made) => taken.push(["edit", made()]) };
  serve({ "/gate/read": { name: "Raid night", rules: [{ id: "links" }] }, "/gate": (values, path) => ({ path, values }) });
  sets = new Sets(edit, (told) => taken.push(told));
  sets.tell({ sets: ["Calm day", "Raid night"], in_force: 0 });
});

const ask = async (words, name) => {
  pressable(words).click();
  find(".set-name input").value = name;
  pressable("OK").click();
  await settled();
};

test("the set in force is the one that is chosen; another is told by number and name, so that a renamed one is noticed", async () => {
  assert.deepEqual(
    all("#sets label").map((one) => [one.textContent, one.querySelector("input").checked]),
    [
      ["Calm day", true],
      ["Raid night", false],
    ],
  );
  all("#sets input")[1].dispatchEvent(new globalThis.Event("change"));
  assert.ok(edit.busy, "no check of the edit while the set changes");
  await settled();
  assert.deepEqual(page.asked, [["/gate/use", { set: "1", name: "Raid night" }]]);
  assert.equal(edit.busy, false);
  assert.equal(taken.length, 1);
});

test("told the same again nothing is drawn anew, told otherwise it is", () => {
  const [first] = all("#sets label");
  sets.tell({ sets: ["Calm day", "Raid night"], in_force: 0 });
  assert.equal(all("#sets label")[0], first);
  sets.tell({ sets: ["Calm day"], in_force: 0 });
  assert.equal(all("#sets label").length, 1);
});

test("another set, a new name and taking away say from which edit", async () => {
  await ask("Another set, like this one", "Quiet");
  await ask("Rename this set", "Calm night");
  pressable("Take this set away").click();
  await settled();
  assert.deepEqual(page.asked, [
    ["/gate/sets", { name: "Quiet", from: "v7" }],
    ["/gate/sets/rename", { name: "Calm night", from: "v7" }],
    ["/gate/sets/remove", { from: "v7" }],
  ]);
  assert.equal(find("details").open, false);
});

test("a name is asked for with the present one, and no longer than a name may be", () => {
  pressable("Rename this set").click();
  assert.equal(called("Name of this set").value, "Calm day");
  assert.equal(called("Name of this set").maxLength, 40);
});

test("a refused deed is said and the edit goes on", async () => {
  serve({ "/gate": { error: "Somebody changed the gate meanwhile." } });
  pressable("Take this set away").click();
  await settled();
  assert.deepEqual(said(), ["Somebody changed the gate meanwhile."]);
  assert.deepEqual([taken, edit.busy], [[], false]);
});

test("a set that is brought is an edit, and counts for nobody before it is kept", async () => {
  globalThis.fetch = async (path) => {
    page.asked.push([path]);
    return { ok: true, json: async () => ({ name: "Raid night", rules: [{ id: "links" }] }) };
  };
  await sets.bring({ files: [{ arrayBuffer: async () => new ArrayBuffer(2) }] });
  assert.deepEqual(taken, [["edit", [{ id: "links" }]]]);
  assert.deepEqual(page.asked, [["/gate/read"]]);
  assert.match(said()[0], /“Raid night” is an edit of this set now/);
  assert.deepEqual([find("#set-menu a").getAttribute("href"), find("#set-menu a").download], ["/gate/rules.json", "rules.json"]);
});
