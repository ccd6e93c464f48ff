import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, eachOnAPage, find, page } from "../support/page.js";
import { inOrder, movable, Specimen } from "../../../assets/js/stage/specimen.js";

const CHAT = {
  id: "a",
  kind: "chat",
  parts: ["avatar", "mark", "badges", "name", "text"],
  name_place: "line",
  name_colour: "theirs",
  marks: [],
};
const VOICES = { id: "v", kind: "voices", names: "own", marks: ["muted"] };

eachOnAPage({ html: '<div id="specimen"></div><div id="tags"></div><iframe id="draft"></iframe>' });

let specimen;
let told;
let drawn;
let changed;

// The frame in which the draft is drawn: another document, here one that a test fills.
function drawing(...pieces) {
  drawn.innerHTML = pieces
    .map(({ id, css = "", data = "" }) => `<div data-piece="${id}" style="--text-size: 40px; --x: 5px; ${css}" ${data}></div>`)
    .join("");
}

beforeEach(() => {
  told = [];
  changed = null;
  drawn = page.document.createElement("div");
  globalThis.MutationObserver = class {
    constructor(act) {
      this.act = act;
    }
    observe(element) {
      changed = this.act;
      this.element = element;
    }
    disconnect() {
      changed = null;
    }
  };
  Object.defineProperty(find("#draft"), "contentDocument", { configurable: true, value: drawn });
  specimen = new Specimen(find("#specimen"), find("#tags"), find("#draft"), {
    choose: (part) => told.push(part),
    order: (parts) => told.push(parts),
  });
});

const box = () => find(".specimen-piece");
const click = (selector) => find(`#specimen ${selector}`).dispatchEvent(new globalThis.Event("click", { bubbles: true }));

test("it is drawn as the stage draws it, at a size of its own", () => {
  drawing({ id: "a", css: "--ink: red;", data: 'data-form="bright"' });
  specimen.show(CHAT);
  assert.deepEqual(
    [box().style.getPropertyValue("--ink"), box().dataset.form, box().dataset.piece, box().style.zoom],
    ["red", "bright", undefined, "0.5"],
  );
  assert.equal(box().querySelector(".name").textContent.trim(), "kestrel_ann");
});

test("only what has lines or voices has one", () => {
  drawing({ id: "a" });
  specimen.show(CHAT);
  specimen.show({ id: "g", kind: "goal" });
  assert.deepEqual([find("#specimen").hidden, changed], [true, null]);
  specimen.show(CHAT);
  assert.equal(find("#specimen").hidden, false);
});

test("a piece that the frame has not drawn yet is waited for, unless another is chosen meanwhile", () => {
  specimen.show(CHAT);
  assert.equal(box(), null);
  drawing({ id: "a" }, { id: "v" });
  specimen.show(VOICES);
  page.clock.pass(120);
  assert.equal(box().classList.contains("voices"), true);
  drawing({ id: "a" });
  specimen.show(CHAT);
  assert.equal(box().classList.contains("chat"), true);
});

test("what changes in the frame is drawn, where it stands is not looked at", () => {
  drawing({ id: "a" });
  specimen.show(CHAT);
  const before = box();
  const [original] = drawn.children;
  original.style.setProperty("--x", "90px");
  changed();
  assert.equal(box(), before);
  original.style.setProperty("--ink", "blue");
  changed();
  assert.equal(box().style.getPropertyValue("--ink"), "blue");
  drawn.replaceChildren();
  changed();
  assert.equal(box().style.getPropertyValue("--ink"), "blue");
});

test("names are of one colour where that is set", () => {
  drawing({ id: "a", css: "--one-name: #123456;" });
  specimen.show({ ...CHAT, name_colour: "one", marks: ["other"] });
  assert.match(find("#specimen .stack").innerHTML, /#123456/);
  specimen.show(CHAT);
  assert.doesNotMatch(find("#specimen .stack").innerHTML, /#123456/);
});

test("what is clicked is the part that is set; beside all of them, the whole", () => {
  drawing({ id: "a" }, { id: "v" });
  specimen.show(CHAT);
  for (const selector of [".name", ".emoji", ".text", ".badge", ".mark", ".stack"]) click(selector);
  specimen.show(VOICES);
  for (const selector of [".voice-bar", ".voice-face", ".voice-name", ".seat", ".seats"]) click(selector);
  assert.deepEqual(told, ["name", "emotes", "text", "badges", "badges", "stack", "sign", "face", "name", "plate", "arranged"]);
});

test("the part that is set is lit, also after it is drawn anew", () => {
  drawing({ id: "a" });
  specimen.show(CHAT);
  specimen.light("name");
  const lit = () => all("#specimen .lit").map((one) => one.classList[0]);
  assert.deepEqual(lit(), ["name"]);
  drawn.firstElementChild.style.setProperty("--ink", "blue");
  changed();
  assert.deepEqual(lit(), ["name"]);
  specimen.light("text");
  assert.deepEqual(lit(), ["text"]);
  specimen.light("motion");
  assert.deepEqual(lit(), []);
});

test("marks and badges go together, and what has no tag stays behind", () => {
  drawing({ id: "a" });
  specimen.show({ ...CHAT, parts: ["avatar", "mark", "badges", "name", "text", "reply"] });
  specimen.ordered(["name", "badges", "text"]);
  assert.deepEqual(told, [["name", "mark", "badges", "text", "avatar", "reply"]]);
});

test("tags stand in the order of the parts, and what cannot be moved behind them", () => {
  const parts = ["text", "plate", "name", "badges", "stack"].map((key) => ({ key }));
  const order = ["name", "mark", "badges", "text"];
  assert.deepEqual(
    inOrder(parts, order).map(({ key }) => key),
    ["name", "badges", "text", "plate", "stack"],
  );
  assert.deepEqual(["name", "plate", "emotes", "time"].map(movable), [true, false, false, true]);
});
