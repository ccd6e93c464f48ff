import assert from "node:assert/strict";
import { test } from "node:test";
import { eachOnAPage, find, page, pressable, type } from "../support/page.js";
import { cornersAt, cornersRow } from "../../../assets/js/stage/corners_row.js";

eachOnAPage();

const NAMES = ["plate_round_top_start", "plate_round_top_end", "plate_round_bottom_end", "plate_round_bottom_start"];
const field = (name) => ({ name, kind: "number", label: name, min: 0, max: 300, unit: "%", digits: 0, default: 32 });

function row(wants) {
  const made = cornersRow(NAMES.map(field), { want: (values) => wants.push(values), gesture: () => "g" });
  page.document.body.append(made.element);
  return made;
}

const input = (name) => find(`input.figure[name="${name}"]`);
const seen = (name) => !input(name).closest("[hidden]");

test("the four of a rounding are found where they stand together", () => {
  assert.deepEqual(cornersAt(["x", ...NAMES, "y"], 1), NAMES);
  assert.deepEqual([cornersAt(NAMES, 1), cornersAt(NAMES.slice(0, 3), 0)], [null, null]);
});

test("corners that are alike are one value, and are set together", () => {
  const wants = [];
  row(wants).show([32, 32, 32, 32]);
  assert.deepEqual([seen("plate_round"), seen(NAMES[0])], [true, false]);
  type(input("plate_round"), "50 %");
  assert.deepEqual(wants, [Object.fromEntries(NAMES.map((name) => [name, "50 %"]))]);
});

test("it opens into four and closes again, unless they differ", () => {
  const wants = [];
  const made = row(wants);
  made.show([32, 32, 32, 32]);
  pressable("Each corner by itself").click();
  assert.deepEqual([seen("plate_round"), seen(NAMES[2])], [false, true]);
  type(input(NAMES[2]), "0 %");
  assert.deepEqual(wants, [{ [NAMES[2]]: "0 %" }]);
  pressable("All corners alike").click();
  assert.equal(seen("plate_round"), true);
  made.show([32, 32, 0, 32]);
  assert.deepEqual([seen("plate_round"), seen(NAMES[2]), input(NAMES[2]).value], [false, true, "0 %"]);
});
