import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, eachOnAPage, find, page, settled, type } from "../support/page.js";
import { fill, numberField } from "../../../assets/js/stage/fields.js";
import { rowFor, wanted } from "../../../assets/js/stage/properties.js";

eachOnAPage({
  html: `<main data-feeds='[{"id":"4","name":"Oxbow"}]' data-rooms='[["","none"],["h","The hides"]]'></main><div id="rows"></div>`,
});

let deeds;
let gestures;

beforeEach(() => {
  deeds = [];
  gestures = 0;
});

const want = (values, how) => deeds.push(how === undefined ? values : [values, how]);
const gesture = () => {
  gestures += 1;
  return `g${gestures}`;
};

function row(field, value) {
  const made = rowFor({ want, gesture, name: "p", label: "P", ...field });
  find("#rows").replaceChildren(made.element);
  made.show(value, {});
  return made;
}
const input = () => find("#rows input, #rows textarea, #rows select");
const press = (name, more = {}) => input().dispatchEvent(new globalThis.KeyboardEvent("keydown", { key: name, cancelable: true, ...more }));

test("a number is typed as it is, and stepped by keys in one deed", () => {
  const field = numberField({ name: "x", label: "X", unit: "px", step: 0.5, want, gesture });
  find("#rows").replaceChildren(field.label, field.input);
  field.show(10);
  assert.equal(input().value, "10 px");
  type(input(), "a dozen");
  press("ArrowUp");
  press("ArrowUp", { shiftKey: true });
  press("ArrowDown");
  press("x");
  assert.deepEqual(deeds, [{ x: "a dozen" }, [{ x: "10.5" }, "g1"], [{ x: "15.5" }, "g1"], [{ x: "15" }, "g1"]]);
  input().dispatchEvent(new globalThis.KeyboardEvent("keyup", { key: "ArrowUp" }));
  press("ArrowUp");
  assert.deepEqual(deeds.at(-1), [{ x: "15.5" }, "g2"]);
});

test("what somebody types is not overwritten by what is told meanwhile", () => {
  const made = row({ kind: "number", min: 0, max: 100, digits: 0 }, 5);
  const field = find("#rows input.figure");
  field.focus();
  field.value = "12";
  made.show(7);
  assert.equal(field.value, "12");
  field.blur();
  made.show(7);
  assert.equal(field.value, "7");
});

test("a slider reaches as far as anybody wants at first, and moves in one deed", () => {
  row({ kind: "number", min: 0, max: 100, digits: 0 }, 25);
  const slider = find("[type=range]");
  assert.deepEqual([slider.min, slider.max, slider.style.getPropertyValue("--filled")], ["0", "100", "25%"]);
  slider.value = 60;
  slider.dispatchEvent(new globalThis.Event("input"));
  slider.value = 61;
  slider.dispatchEvent(new globalThis.Event("input"));
  assert.deepEqual(deeds, [
    [{ p: "60" }, "g1"],
    [{ p: "61" }, "g1"],
  ]);
  slider.dispatchEvent(new globalThis.Event("change"));
  slider.dispatchEvent(new globalThis.Event("input"));
  assert.equal(deeds.at(-1)[1], "g2");
  row({ kind: "number", min: -10_000, max: 10_000, digits: 0 }, 0);
  assert.deepEqual([find("[type=range]").min, find("[type=range]").max], ["-400", "400"]);
  row({ kind: "number", min: 1, max: 5000, digits: 0 }, 1);
  assert.deepEqual([find("[type=range]").min, find("[type=range]").max], ["1", "401"]);
  fill(find("[type=range]"));
});

test("a number is dragged by its label, from where it was", () => {
  const field = numberField({ name: "x", label: "X", want, gesture });
  find("#rows").replaceChildren(field.label, field.input);
  field.label.setPointerCapture = () => {};
  field.show(10);
  const pointer = (name, clientX) => field.label.dispatchEvent(Object.assign(new globalThis.Event(name), { clientX, pointerId: 1 }));
  pointer("pointermove", 900);
  pointer("pointerdown", 100);
  pointer("pointermove", 101);
  pointer("pointermove", 130);
  pointer("pointermove", 91);
  pointer("pointerup", 91);
  pointer("pointermove", 900);
  assert.deepEqual(deeds, [
    [{ x: "20" }, "g1"],
    [{ x: "7" }, "g1"],
  ]);
});

test("choices stand side by side where they fit, else in a list", () => {
  row(
    {
      kind: "choice",
      choices: [
        ["a", "One"],
        ["b", "Two"],
      ],
    },
    "b",
  );
  assert.deepEqual(
    all("[type=radio]").map((radio) => radio.checked),
    [false, true],
  );
  all("[type=radio]")[0].dispatchEvent(new globalThis.Event("change"));
  row(
    {
      kind: "choice",
      choices: [
        ["a", "A rather long word"],
        ["b", "Another long word"],
      ],
    },
    "b",
  );
  type(find("select"), "a");
  assert.deepEqual(deeds, [{ p: "a" }, { p: "a" }]);
});

test("seconds are typed, and for good is a switch", () => {
  const made = row({ kind: "stay", min: 1000, max: 60_000, digits: 1, default: 8000 }, 2500);
  const [, number] = all("#rows input");
  const [slider] = all("#rows [type=range]");
  const text = number.type === "range" ? slider : all("#rows input.figure")[0];
  assert.equal(text.value, "2.5");
  type(text, "3,5");
  type(text, "For good");
  const forGood = find("[role=switch]");
  forGood.checked = true;
  forGood.dispatchEvent(new globalThis.Event("change"));
  forGood.checked = false;
  forGood.dispatchEvent(new globalThis.Event("change"));
  assert.deepEqual(deeds, [{ p: 3500 }, { p: "for good" }, { p: "for good" }, { p: 8000 }]);
  made.show(null);
  assert.deepEqual([text.value, forGood.checked], ["for good", true]);
});

test("text, switches and some of a few", () => {
  row({ kind: "text", max: 40 }, "hello");
  assert.deepEqual([input().tagName, input().value, input().maxLength], ["INPUT", "hello", 40]);
  type(input(), "bye");
  row({ kind: "text", max: 400 }, "hello");
  assert.equal(input().tagName, "TEXTAREA");
  row({ kind: "text", max: 40, from: "rooms" }, "h");
  assert.deepEqual([input().value, input().textContent], ["h", "noneThe hides"]);
  row({ kind: "switch" }, true);
  assert.equal(input().checked, true);
  row({ kind: "some" }, ["4"]);
  assert.deepEqual([input().checked, find("#rows .some label").textContent], [true, "Oxbow"]);
  row(
    {
      kind: "some",
      choices: [
        ["a", "A"],
        ["b", "B"],
      ],
    },
    ["b"],
  );
  all("[type=checkbox]")[0].checked = true;
  all("[type=checkbox]")[0].dispatchEvent(new globalThis.Event("change"));
  assert.deepEqual(deeds, [{ p: "bye" }, { p: ["a", "b"] }]);
});

test("rows of the same fields are added up to so many, changed and taken off", async () => {
  const fields = [{ kind: "text", name: "who", label: "Who", max: 40, default: "x" }];
  const made = row({ kind: "rows", fields, most: 2 }, [{ who: "ann" }]);
  const more = find('[aria-label="One more: P"]');
  more.click();
  await settled();
  assert.deepEqual(deeds, [{ p: [{ who: "ann" }, { who: "x" }] }]);
  made.show([{ who: "ann" }, { who: "x" }], {});
  more.click();
  assert.equal(deeds.length, 1);
  type(all(".list-row input")[1], "bo");
  all('[aria-label="Take this one off"]')[0].click();
  assert.deepEqual(deeds.slice(1), [{ p: [{ who: "ann" }, { who: "bo" }] }, { p: [{ who: "bo" }] }]);
});

test("what repeats the part's name is left out of a label", () => {
  const label = (words, part) => rowFor({ kind: "switch", name: "p", label: words, part, want, gesture }).element.textContent;
  assert.deepEqual(
    [label("Plate colour", "Plate"), label("Name’s colour", "Name"), label("Plates", "Plate"), label("Colour", undefined)],
    ["Colour", "Colour", "Plates", "Colour"],
  );
});

test("a row is of use only where what it needs is set", () => {
  const value = (name) => ({ plate: "line", shadow: 0, blur: 3 })[name];
  assert.deepEqual(
    [
      {},
      { needs: ["plate", ["line", "all"]] },
      { needs: ["plate", ["none"]] },
      { needs: ["shadow", "some"] },
      { needs: ["blur", "some"] },
    ].map((row) => wanted(row, value)),
    [true, true, false, false, true],
  );
  assert.equal(page.asked.length, 0);
});
