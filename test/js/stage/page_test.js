import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, called, eachOnAPage, find, key, page, pressable, run, said, serve, settled, stationOf, type } from "../support/page.js";

const field = (name) => ({ kind: "text", name, label: name, default: "", max: 80 });
const COMMON = ["called", "side", "opacity", "keep_proportion", "locked", "hidden"];
const FIELDS = Object.fromEntries(COMMON.map((name) => [name, field(name)]));
const LETTERED = `chat voices portraits room_card alerts goal flurry challenge newest counter shout_out captions picture video text clock
  now_line space`.split(/\s+/);
const KINDS = Object.fromEntries(
  LETTERED.map((kind) => [
    kind,
    { label: kind.replace("_", " "), icon: "box", fields: FIELDS, parts: [{ key: "it", label: "It", groups: [] }] },
  ]),
);
const piece = (id, more = {}) => ({
  id,
  kind: "clock",
  clock: "time",
  called: `Piece ${id}`,
  x: 0,
  y: 0,
  width: 100,
  height: 50,
  bright: {},
  ...more,
});
const HOUSE = { colours: {}, faces: {} };
const FIGURES = { in: 0, off: 0, aired: 0, feeds: 0, live: 0, trouble: 0, waiting: 0, screens: 0, emotes: 0, held: 0, on_air: false };
const stage = (more = {}) => ({
  id: 4,
  size: { width: 1920, height: 1080 },
  revision: 1,
  changes: [],
  undo: true,
  redo: false,
  air_at_once: false,
  rehearsal: null,
  voices: null,
  backdrop: "white",
  live: {},
  ...more,
});
const draft = (at, order, pieces = order.map((id) => piece(id)), more = {}) => ({
  id: 4,
  at,
  width: 1920,
  height: 1080,
  house: HOUSE,
  order,
  pieces,
  ...more,
});

let answers;
let seq;
const socket = () => page.sockets.at(-1);
const sent = (path) => page.asked.filter(([asked]) => asked === path).map(([, values]) => values);
const edits = () => sent("/stage/4/edits");
const chosen = () => all("#hands .hand.chosen").map((hand) => hand.dataset.piece);
const title = () => (find("#for-piece").hidden ? null : find("#piece-title").textContent);
const order = () => all("#order [data-order-of]").map((chip) => chip.dataset.orderOf);

async function open(html = null) {
  stationOf("stage");
  const [none, main] = all("main");
  if (html) return html(none, main);
  none.remove();
  find("#scripts").innerHTML = '<label><input type="radio" name="script" value="calm" checked>Calm</label>';
  find("#voice-scripts").innerHTML = '<label><input type="radio" name="voice-script" value="" checked>Own</label>';
  Object.assign(main.dataset, { stage: "4", feeds: "[]", shelves: "[]", rooms: "[]", keys: "[]", cast: "[]" });
  Object.assign(find("#inspector").dataset, { faces: "[]", ownFaces: "[]" });
}

function withoutLayout() {
  for (const name of ["ResizeObserver", "MutationObserver"])
    globalThis[name] = class {
      observe() {}
      disconnect() {}
    };
}

eachOnAPage();
beforeEach(async () => {
  await open();
  withoutLayout();
  seq = 0;
  answers = {
    "/stage/kinds": KINDS,
    "/stage/scripts": { scripts: [{ key: "calm", bars: [[1]] }] },
    "/stage/4/measures": { legibility: null, pace: null, room: null, goal: null, wrong: [] },
    "/stage/4/edits": (edit) => ({ edit, at: 50 }),
    "/stage/4": { revision: 2 },
  };
  serve(answers);
  await run("stage/main.js");
});

function tell(edited = [], { whole = seq === 0, more = {} } = {}) {
  seq += 1;
  socket().tell({ at: `b:${seq}`, whole, figures: FIGURES, stages: [stage(more)], edited });
}

test("the piece in front is chosen at first, but never a flurry that lies over all", () => {
  tell([draft(1, ["a", "b", "f"], [piece("a"), piece("b"), piece("f", { kind: "flurry" })])]);
  assert.deepEqual([chosen(), title(), order()], [["b"], "Piece b", ["f", "b", "a"]]);
});

test("on a stage of nothing but a flurry that is chosen, on an empty one it is said how to begin", () => {
  tell([draft(1, ["f"], [piece("f", { kind: "flurry" })])]);
  assert.deepEqual([chosen(), find("#hint").hidden], [["f"], true]);
  tell([draft(2, [])]);
  assert.deepEqual([chosen(), find("#hint").hidden, title()], [[], false, null]);
});

test("what others choose or take off leaves alone what is chosen here", () => {
  tell([draft(1, ["a", "b"])]);
  find('#hands [data-piece="a"]').focus();
  assert.deepEqual(chosen(), ["a"]);
  tell([draft(2, ["a", "b", "c"], [piece("c")])]);
  assert.deepEqual(chosen(), ["a"]);
  tell([draft(3, ["b", "c"], [])]);
  assert.deepEqual([chosen(), title()], [[], null]);
});

test("another stage's edits are none of this page's", () => {
  tell([draft(1, ["a"])]);
  tell([{ ...draft(2, []), id: 5 }]);
  assert.deepEqual(chosen(), ["a"]);
});

test("what is set counts here before it is told, and is sent once for all that is chosen", async () => {
  tell([draft(1, ["a", "b"])]);
  key("a", { ctrlKey: true });
  assert.deepEqual(chosen(), ["a", "b"]);
  key("ArrowRight", { target: find('#hands [data-piece="a"]') });
  await settled();
  assert.deepEqual(edits(), [
    {
      do: "many",
      edits: [
        { do: "set", piece: "a", values: { x: 1, y: 0 } },
        { do: "set", piece: "b", values: { x: 1, y: 0 } },
      ],
    },
  ]);
  assert.equal(find('#hands [data-piece="b"]').style.left, find('#hands [data-piece="a"]').style.left);
});

test("one value of one piece is one edit, and an answer counts until the server tells otherwise", async () => {
  answers["/stage/4/edits"] = (edit) => ({ edit: { ...edit, values: { called: "Wall" } }, at: 50 });
  tell([draft(1, ["a"])]);
  type(find('#common [data-property="called"] input'), "Wall");
  await settled();
  assert.deepEqual(edits(), [{ do: "set", piece: "a", values: { called: "Wall" } }]);
  assert.deepEqual([title(), order().length], ["Wall", 1]);
  tell([draft(20, ["a"])]);
  assert.equal(title(), "Wall");
  tell([draft(60, ["a"])]);
  assert.equal(title(), "Piece a");
});

test("what is refused says so and changes nothing", async () => {
  answers["/stage/4/edits"] = { error: "That piece is gone." };
  tell([draft(1, ["a"])]);
  type(find('#common [data-property="called"] input'), "Wall");
  await settled();
  assert.deepEqual([said(), title()], [["That piece is gone."], "Piece a"]);
});

test("a piece that is added by its letter is chosen as soon as it is told of", async () => {
  answers["/stage/4/edits"] = (edit) => ({ edit: { ...edit, piece: { id: "n" } }, at: 3 });
  tell([draft(1, ["a"])]);
  key("k");
  await settled();
  assert.deepEqual([edits(), chosen()], [[{ do: "place", kind: "clock" }], ["a"]]);
  tell([draft(3, ["a", "n"], [piece("n")])]);
  assert.deepEqual(chosen(), ["n"]);
});

test("several that are put down are chosen together, told of before or after they are answered", async () => {
  answers["/stage/4/edits"] = { edit: { edits: [{ piece: { id: "m" } }, { piece: { id: "n" } }] }, at: 3 };
  tell([draft(1, ["a"])]);
  key("d", { ctrlKey: true });
  tell([draft(3, ["a", "m", "n"], [piece("m"), piece("n")])]);
  await settled();
  assert.deepEqual(chosen(), ["m", "n"]);
});

test("every kind has a letter of its own, and the menu says which", () => {
  find("#add-piece").click();
  const letters = all("#draw-menu kbd").map((one) => one.textContent);
  assert.deepEqual([letters.length, new Set(letters).size, letters.includes("")], [LETTERED.length, LETTERED.length, false]);
  key("Escape", { target: page.document.activeElement });
  assert.equal(find("#draw-menu").hidden, true);
});

test("keys put on air, undo and take off, and not while something is typed", async () => {
  tell([draft(1, ["a"])]);
  const typed = find('#common [data-property="called"] input');
  for (const target of [typed, page.document.body]) {
    key("Enter", { target, ctrlKey: true });
    key("z", { target, ctrlKey: true });
    key("Delete", { target });
  }
  await settled();
  assert.deepEqual([sent("/stage/4/put-on-air").length, sent("/stage/4/undo").length, edits()], [1, 1, [{ do: "off", pieces: ["a"] }]]);
});

test("Escape chooses nothing, and the stage itself is set", () => {
  tell([draft(1, ["a"])]);
  key("Escape");
  assert.deepEqual([chosen(), find("#for-stage").hidden], [[], false]);
});

test("pieces are put in order below the picture", async () => {
  tell([draft(1, ["a", "b"])]);
  find('#order [data-order-of="a"]').click();
  assert.deepEqual(chosen(), ["a"]);
  key("ArrowLeft", { target: find('#order [data-order-of="a"]'), altKey: true });
  await settled();
  assert.deepEqual(edits(), [{ do: "order", piece: "a", at: 1 }]);
});

const words = (id, kind) => piece(id, { kind, parts: [], text_colour: "#ffffff" });
const LOOK = {
  key: "quiet",
  name: "Quiet",
  about: "",
  behind: "dawn",
  set: { plate_for: "none" },
  pieces: [],
};

test("looks are for what has words: one piece alone, everything with it, or the whole stage", async () => {
  answers["/stage/4/looks"] = { box: [0, 0, 1920, 1080], looks: [LOOK] };
  tell([draft(1, ["a"])]);
  key("o");
  await settled();
  assert.equal(
    page.asked.some(([path]) => path.startsWith("/stage/4/looks")),
    false,
  );
  tell([draft(2, ["c", "g"], [words("c", "chat"), words("g", "goal")])]);
  const openWith = async (id) => {
    find(`#order [data-order-of="${id}"]`).click();
    key("o");
    await settled();
  };
  const press = async () => {
    find(".look-card").click();
    await settled();
    return edits().at(-1);
  };
  await openWith("c");
  assert.equal(page.asked.at(-1)[0], "/stage/4/looks?piece=c&form=dark");
  assert.deepEqual([find("#look-whole").checked, find("#look-whole-row").hidden], [false, false]);
  assert.deepEqual(await press(), { do: "look", piece: "c", set: LOOK.set });
  await openWith("c");
  find("#look-whole").click();
  await settled();
  assert.match(find("#look-said").textContent, /^Dresses all 2 pieces, and what you add later\./);
  assert.deepEqual(await press(), { do: "outfit", outfit: "quiet" });
  await openWith("g");
  assert.match(find("#look-said").textContent, /its place and size stay/);
  assert.deepEqual(await press(), { do: "outfit", outfit: "quiet", pieces: ["g"] });
  find("#open-outfits").click();
  await settled();
  assert.deepEqual([page.asked.at(-1)[0], find("#looks-title").textContent], ["/stage/4/looks?form=dark", "Outfits for the whole stage"]);
  assert.equal(find("#look-whole-row").hidden, true);
  assert.deepEqual(await press(), { do: "outfit", outfit: "quiet" });
});

test("looks of one's own are kept, worn as themselves, taken away and brought back", async () => {
  tell([draft(2, ["g"], [words("g", "goal")])]);
  const own = { ...LOOK, key: "own-7", own: 7, name: "Ours", set: { goal_colour: "#123456" } };
  answers["/stage/4/looks"] = { box: [0, 0, 10, 10], looks: [own] };
  find('#order [data-order-of="g"]').click();
  key("o");
  await settled();
  assert.equal(find("#look-keep span").textContent, "Keep this piece’s look");
  find("#look-keep input").value = " Ours ";
  find("#look-keep").dispatchEvent(new globalThis.Event("submit", { cancelable: true }));
  await settled();
  assert.deepEqual(
    page.asked.find(([, values]) => values?.name === "Ours"),
    ["/stage/4/looks", { name: "Ours", piece: "g" }],
  );
  called("Take “Ours” away").click();
  await settled();
  assert.ok(page.asked.some(([path]) => path === "/stage/looks/7/remove"));
  find(".look-card").click();
  await settled();
  assert.deepEqual(edits().at(-1), { do: "look", piece: "g", set: own.set });
  find("#open-outfits").click();
  await settled();
  find(".look-card").click();
  await settled();
  assert.deepEqual(edits().at(-1), { do: "dress", set: own.set });
});

test("while a piece is held, what is told waits until it is let go", () => {
  tell([draft(1, ["a"])]);
  const hands = find("#hands");
  hands.setPointerCapture = () => {};
  const pointer = (name, target) =>
    target.dispatchEvent(
      Object.assign(new globalThis.Event(name, { bubbles: true, cancelable: true }), { clientX: 5, clientY: 0, button: 0, pointerId: 1 }),
    );
  pointer("pointerdown", find('#hands [data-piece="a"]'));
  tell([draft(2, ["a", "b"], [piece("b")])]);
  assert.deepEqual(order(), ["a"]);
  pointer("pointerup", hands);
  assert.deepEqual(order(), ["b", "a"]);
});

test("a stage that was taken away is offered back on the page that is shown instead", async () => {
  page.window.sessionStorage.setItem("taken-away", JSON.stringify({ id: 9, name: "Old picture" }));
  await open();
  withoutLayout();
  page.window.sessionStorage.setItem("taken-away", JSON.stringify({ id: 9, name: "Old picture" }));
  answers["/stage/9/put-back"] = { error: "It is gone for good." };
  await run("stage/main.js");
  assert.deepEqual(said(), ["“Old picture” is taken away. Its link shows nothing now."]);
  pressable("Undo").click();
  await settled();
  assert.deepEqual([sent("/stage/9/put-back").length, said().at(-1)], [1, "It is gone for good."]);
  assert.equal(page.window.sessionStorage.getItem("taken-away"), null);
});

test("where there is no stage yet, common sizes are filled in", async () => {
  await open((none, main) => {
    main.remove();
    none.querySelector("form").innerHTML =
      `<input name="width"><input name="height"><button type="button" data-width="1280" data-height="720"></button>
      <button type="button" data-width="1080" data-height="1920"></button>`;
  });
  await run("stage/main.js");
  const [wide] = all("[data-width]");
  wide.click();
  assert.deepEqual(
    [find('[name="width"]').value, find('[name="height"]').value, all("[data-width]").map((one) => one.getAttribute("aria-pressed"))],
    ["1280 px", "720 px", ["true", "false"]],
  );
  assert.equal(called("Pieces on the stage"), undefined);
});
