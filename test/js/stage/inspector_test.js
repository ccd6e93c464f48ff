import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, eachOnAPage, find, key, page, stationOf, type } from "../support/page.js";
import { Inspector } from "../../../assets/js/stage/inspector.js";

const field = (name, more = {}) => ({ kind: "text", name, label: name, default: "", max: 80, ...more });
const COMMON = ["called", "side", "opacity", "keep_proportion", "locked", "hidden"];
const fields = (...more) => Object.fromEntries([...COMMON.map((name) => field(name)), ...more].map((one) => [one.name, one]));
const part = (key_, label, ...groups) => ({ key: key_, label, groups: groups.map(([title, names]) => ({ title, names })) });
const KINDS = {
  chat: {
    label: "Chat",
    fields: fields(field("form"), field("size", { label: "Name size" }), field("ink"), field("fade", { needs: ["ink", ["red"]] })),
    parts: [
      part("stack", "Stack", [null, []]),
      part("name", "Name", [null, ["size"]], ["More of it", ["fade"]]),
      part("text", "Text", [null, ["ink"]]),
      part("plate", "Plate", [null, []]),
    ],
  },
  clock: { label: "Clock", fields: fields(field("zone")), parts: [part("hands", "Hands", [null, ["zone"]])] },
  space: { label: "Space", fields: fields(), parts: [part("kept", "Kept", [null, []])] },
};
const values = { called: "", side: "front", opacity: "1", keep_proportion: "", locked: "", hidden: "" };
const CHAT = {
  ...values,
  id: "a",
  kind: "chat",
  x: 10,
  y: 20,
  width: 300,
  height: 400,
  form: "dark",
  bright: { ink: "black" },
  ink: "white",
  size: "20",
  fade: "no",
  parts: ["name", "text"],
};
const CLOCK = { ...values, id: "k", kind: "clock", x: 1, y: 2, width: 3, height: 4, bright: {}, zone: "here" };
const space = (id) => ({ ...values, id, kind: "space", called: `Space ${id}`, x: 0, y: 0, width: 9, height: 9, bright: {} });
const stage = (...pieces) => ({ width: 1920, height: 1080, frame_rate: 60, pieces });

eachOnAPage();

let inspector;
let sets;
let sizes;

beforeEach(() => {
  stationOf("stage", { feeds: [] });
  globalThis.MutationObserver = class {
    observe() {}
    disconnect() {}
  };
  sets = [];
  sizes = [];
  inspector = new Inspector(KINDS, {
    set: (given, how) => sets.push(how ? [given, how] : given),
    size: (given) => sizes.push(given),
    gesture: () => "g",
    called: (piece) => piece.called || KINDS[piece.kind].label,
  });
});

const seen = () => ["#for-piece", "#for-many", "#for-stage"].filter((id) => !find(id).hidden);
const tags = () => all("#part-tags [data-part]").map((tag) => tag.dataset.part);
const tag = (name) => find(`#part-tags [data-part="${name}"]`);
const chosen = () => find('#part-tags [aria-selected="true"]').dataset.part;
const rows = () =>
  all("#parts [data-property]")
    .filter((row) => !row.hidden)
    .map((row) => row.dataset.property);
const input = (name) => find(`[data-property="${name}"] input`);
const show = (...pieces) => inspector.show(stage(...pieces), pieces);

test("of nothing chosen the stage is set, of one that piece, of several what they have in common", () => {
  show();
  assert.deepEqual(seen(), ["#for-stage"]);
  assert.deepEqual(
    all("#frame-fields input").map((one) => one.value),
    ["1920", "1080", "60"],
  );
  show(CHAT);
  assert.deepEqual([seen(), find("#piece-title").textContent], [["#for-piece"], "Chat"]);
  show(CHAT, CLOCK);
  assert.deepEqual([seen(), find("#many-title").textContent], [["#for-many"], "2 pieces"]);
});

test("several can be grouped where they are not one group, and ungrouped where one of them is in any", () => {
  const grouped = (...groups) => {
    show({ ...CHAT, group: groups[0] }, { ...CLOCK, group: groups[1] });
    return ["#group", "#ungroup"].map((id) => find(id).disabled);
  };
  assert.deepEqual(grouped("", ""), [false, true]);
  assert.deepEqual(grouped("g1", ""), [false, false]);
  assert.deepEqual(grouped("g1", "g2"), [false, false]);
  assert.deepEqual(grouped("g1", "g1"), [true, false]);
});

test("where it sits and how large the stage is are set by figures", () => {
  show(CHAT);
  const [x] = all("#where input");
  assert.deepEqual(
    all("#where input").map((one) => one.value),
    ["10", "20", "300", "400"],
  );
  type(x, "55");
  type(all("#frame-fields input")[0], "1280");
  assert.deepEqual([sets, sizes], [[{ x: "55" }], [{ width: "1280" }]]);
});

test("a chat begins with its text, everything else with its first part, and looks belong to what has words", () => {
  show({ ...CHAT, text_colour: "#ffffff" });
  assert.deepEqual([chosen(), rows(), find("#open-looks").hidden], ["text", ["ink"], false]);
  show(CLOCK);
  assert.deepEqual([chosen(), rows(), find("#open-looks").hidden], ["hands", ["zone"], true]);
});

test("the part that was looked at last is the one of the next piece of that kind", () => {
  show(CHAT);
  tag("name").click();
  show(CLOCK);
  show({ ...CHAT, id: "b" });
  assert.equal(chosen(), "name");
  inspector.choose("no such part");
  assert.equal(chosen(), "name");
});

test("rows are made once, and keep what is open in them", () => {
  show(CHAT);
  tag("name").click();
  find("#parts details").open = true;
  const row = input("size");
  tag("text").click();
  tag("name").click();
  show({ ...CHAT, size: "33" });
  assert.deepEqual([input("size") === row, row.value, find("#parts details").open], [true, "33", true]);
});

test("a part's own name is not said again in its rows", () => {
  show(CHAT);
  tag("name").click();
  assert.equal(find('[data-property="size"] label').textContent, "Size");
});

test("what is of no use yet is not shown", () => {
  show(CHAT);
  tag("name").click();
  assert.deepEqual(rows(), ["size"]);
  show({ ...CHAT, ink: "red" });
  assert.deepEqual(rows(), ["size", "fade"]);
});

test("on a bright picture's form, what differs there is shown", () => {
  show(CHAT);
  assert.equal(input("ink").value, "white");
  show({ ...CHAT, form: "bright" });
  assert.equal(input("ink").value, "black");
  show({ ...CHAT, form: "bright", bright: {} });
  assert.equal(input("ink").value, "white");
});

test("what all pieces have stands below; a form only where there is one", () => {
  show(CHAT);
  assert.deepEqual(
    all("#common [data-property]").map((row) => row.dataset.property),
    [...COMMON, "form"],
  );
  show(CLOCK);
  assert.deepEqual(
    all("#common [data-property]").map((row) => row.dataset.property),
    COMMON,
  );
  type(input("called"), "Wall");
  assert.deepEqual(sets, [{ called: "Wall" }]);
});

test("tags of a chat stand as its parts do, and are put elsewhere by key and by drop", () => {
  show(CHAT);
  assert.deepEqual(tags(), ["name", "text", "stack", "plate"]);
  tag("name").focus();
  key("ArrowRight", { target: tag("name"), altKey: true });
  key("ArrowLeft", { target: tag("name"), altKey: true });
  key("ArrowRight", { target: tag("name") });
  key("ArrowRight", { target: tag("plate"), altKey: true });
  const dropped = new globalThis.Event("drop");
  dropped.dataTransfer = { getData: () => "text", types: ["text/part"] };
  tag("name").dispatchEvent(dropped);
  tag("text").dispatchEvent(Object.assign(new globalThis.Event("drop"), { dataTransfer: { getData: () => "text" } }));
  assert.deepEqual(sets, [{ parts: ["text", "name"] }, { parts: ["text", "name"] }]);
});

test("once parts are in another order the tags are too, with the keys where they were", () => {
  show(CHAT);
  tag("name").focus();
  show({ ...CHAT, parts: ["text", "name"] });
  assert.deepEqual([tags().slice(0, 2), page.document.activeElement.dataset.part], [["text", "name"], "name"]);
});

test("only what can be moved can be dragged", () => {
  show(CHAT);
  assert.deepEqual(
    ["name", "text", "stack", "plate"].map((name) => tag(name).draggable === true),
    [true, true, false, false],
  );
  const gives = [];
  const drag = Object.assign(new globalThis.Event("dragstart"), { dataTransfer: { setData: (...given) => gives.push(given) } });
  tag("name").dispatchEvent(drag);
  assert.deepEqual(gives, [["text/part", "name"]]);
});

test("it can be fitted to a space where there is one, never to itself", () => {
  const offered = () => [find("#fit-row").hidden, [...find("#fit-to").options].map((one) => one.textContent)];
  show(CHAT);
  assert.equal(offered()[0], true);
  inspector.show(stage(CHAT, space("one"), space("two")), [CHAT]);
  assert.deepEqual(offered(), [false, ["Space one", "Space two"]]);
  find("#fit-to").value = "two";
  inspector.show(stage(CHAT, space("one"), space("two")), [CHAT]);
  assert.equal(find("#fit-to").value, "two");
  inspector.show(stage(space("one")), [space("one")]);
  assert.equal(offered()[0], true);
});
