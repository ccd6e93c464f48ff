import assert from "node:assert/strict";
import { test } from "node:test";
import { eachOnAPage, find, page, said, serve, settled } from "../support/page.js";
import { drops } from "../../../assets/js/cues/drops.js";

eachOnAPage({ html: '<div id="seen"></div><div id="messages"></div>' });

function dropped(types, files = [], words = "") {
  const event = new page.window.Event("drop", { bubbles: true, cancelable: true });
  event.dataTransfer = { types, files, getData: () => words };
  find("#seen").dispatchEvent(event);
  return event;
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
