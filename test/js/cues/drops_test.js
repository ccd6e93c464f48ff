import assert from "node:assert/strict";
import { test } from "node:test";
import { eachOnAPage, find, page, said, serve, settled } from "../support/page.js";
import { drops } from "../../../assets/js/cues/drops.js";
import { alertDrops } from "../../../assets/js/stage/alert_drops.js";

eachOnAPage({ html: '<div id="seen"></div><div id="messages"></div>' });

function dropped(types, files = [], words = "", target = find("#seen")) {
  const event = new page.window.Event("drop", { bubbles: true, cancelable: true });
  event.dataTransfer = { types, files, getData: () => words };
  target.dispatchEvent(event);
  return event;
}
// On a Stage: two pieces, of which one plays alerts.
function onStage(kinds) {
  find("#seen").innerHTML = '<button class="hand" data-piece="a"></button><button class="hand" data-piece="g"></button>';
  serve({ "/dress/cues/shown": { id: "c1", name: "Tips" }, "/dress/cues/cues/c1": (values) => values });
  alertDrops(find("#seen"), (id) => ({ a: { kind: "alerts", kinds }, g: { kind: "goal" } })[id]);
  return (piece, types, files = [], words = "") => dropped(types, files, words, find(`[data-piece="${piece}"]`));
}
const file = (name, type) => new page.window.File(["x"], name, { type });

function dropping() {
  const told = [];
  serve({ "/dress/cues/cues/c1": (values, path) => ({ path, kind: values.kind ?? null }) });
  drops(find("#seen"), { chosen: () => "c1", taken: (sheet) => told.push(sheet), words: (words) => told.push(words) });
  return told;
}

test("what is dropped goes where it belongs, one after the other", async () => {
  const told = dropping();
  dropped(
    ["Files"],
    [file("a.gif", "image/gif"), file("b.webm", "video/webm"), file("c.ogg", "audio/ogg"), file("d.pdf", "application/pdf")],
  );
  await settled();
  await settled();
  assert.deepEqual(told, [
    { path: "/dress/cues/cues/c1/picture", kind: null },
    { path: "/dress/cues/cues/c1/files", kind: "film" },
    { path: "/dress/cues/cues/c1/files", kind: "sound" },
  ]);
  assert.deepEqual(said(), ["“d.pdf” is no picture, film or sound."]);
});

test("words that are dropped become the cue's", async () => {
  const told = dropping();
  assert.equal(dropped(["text/plain"], [], "  {name} came  ").defaultPrevented, true);
  await settled();
  assert.deepEqual(told, ["{name} came"]);
});

test("while something that can be taken is held over it, it says so", () => {
  dropping();
  const over = (types) => {
    const event = new page.window.Event("dragover", { cancelable: true });
    event.dataTransfer = { types };
    find("#seen").dispatchEvent(event);
    return [event.defaultPrevented, find("#seen").classList.contains("over")];
  };
  assert.deepEqual(
    [over(["text/html"]), over(["Files"])],
    [
      [false, false],
      [true, true],
    ],
  );
  find("#seen").dispatchEvent(new page.window.Event("dragleave"));
  assert.equal(find("#seen").classList.contains("over"), false);
});

test("on a Stage what is dropped on alerts is played by the cue they show, on all else nothing happens", async () => {
  const drop = onStage(["tip", "paid"]);
  assert.equal(drop("g", ["Files"], [file("a.gif", "image/gif")]).defaultPrevented, false);
  drop("a", ["Files"], [file("a.gif", "image/gif")]);
  await settled();
  await settled();
  assert.deepEqual(
    page.asked.map(([path]) => path),
    ["/dress/cues/shown?kinds=tip,paid", "/dress/cues/cues/c1/picture"],
  );
  drop("a", ["text/plain"], [], "Thank you, {name}");
  await settled();
  await settled();
  assert.deepEqual(page.asked.at(-1), ["/dress/cues/cues/c1", { words: "Thank you, {name}" }]);
  assert.deepEqual(said(), ["“Tips” plays it. The draft shows it.", "“Tips” plays it. The draft shows it."]);
});
