import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, eachOnAPage, find } from "../support/page.js";

eachOnAPage({
  html: `<div id="here"></div><ol id="frames"></ol><p id="frames-none"></p><p id="counts"></p><div id="drawn"></div><div id="fields"></div><ul id="checks"></ul>`,
});

let editor;
let frames;
let becomes;
beforeEach(async () => {
  editor = await import("../../../assets/js/describe/editor.js");
  frames = await import("../../../assets/js/describe/frames.js");
  becomes = await import("../../../assets/js/describe/becomes.js");
});
const put = (pieces) => {
  find("#here").replaceChildren(...pieces);
  return find("#here");
};

test("a text stays the text it is, whatever it holds, and names and values are told apart", () => {
  const texts = ['{"a": [1, -2.5e3, true, "b:c"]}', '"open', "{}", "", '{"<b>": "</pre><script>"}', '"a\\"b": 1', "\n\n  x"];
  for (const text of texts) assert.equal(put(editor.coloured(text)).textContent, text);
  const kinds = (text) => [...put(editor.coloured(text)).children].map((piece) => [piece.className, piece.textContent]);
  assert.deepEqual(kinds('{"a" : "b", "c": 7}'), [
    ["json-name", '"a"'],
    ["json-text", '"b"'],
    ["json-name", '"c"'],
    ["json-plain", "7"],
  ]);
});

test("a frame is shown whole, and what nothing reads is marked where it stands, also deeper down", () => {
  const frame = { op: "x", list: [{ by: { level: 14, name: "<i>" } }, { by: { level: 15 } }], none: [], nothing: {}, level: 14 };
  const here = put(frames.shown(frame, [{ path: "by.level", value: 14 }]));
  assert.deepEqual(JSON.parse(here.textContent), frame);
  assert.deepEqual(
    [...here.querySelectorAll("mark")].map((mark) => mark.textContent),
    ["14"],
  );
  assert.equal(here.querySelector("i"), null);
});

const report = (more = {}) => ({ frames: [], samples: [], counts: [], chosen: [], ...more });
const told = (text, unread = false) => ({ told: text, unread, becomes: [] });

test("frames say what is in them, samples what is otherwise, and all of them are counted", () => {
  const pressed = [];
  const list = new frames.Frames({
    choose: (index) => pressed.push(["choose", index]),
    pin: (index) => pressed.push(["pin", index]),
    renew: (index) => pressed.push(["renew", index]),
  });
  list.draw({
    frames: [{ a: 1 }, { b: 2 }, { c: 3 }],
    report: report({
      frames: [told("line"), told("unread", true), told("2 × line, unread", true)],
      samples: ["it is otherwise"],
      counts: [
        ["line", 3],
        ["unread", 2],
      ],
    }),
    chosen: 1,
    samples: 1,
  });
  assert.deepEqual(
    all(".frame-told").map((one) => one.textContent),
    ["line", "nothing reads this yet", "2 × line, unread"],
  );
  assert.deepEqual(
    all(".frame").map((row) => row.className),
    ["frame pinned", "frame chosen unread", "frame unread"],
  );
  assert.equal(find("#counts").textContent, "3 frames: 3 line, 2 unread.");
  assert.match(find(".frame-otherwise").textContent, /it is otherwise/);
  find(".frame-otherwise button").click();
  all(".frame-head")[2].click();
  all(".frame-pin")[1].click();
  assert.deepEqual(pressed, [
    ["renew", 0],
    ["choose", 2],
    ["pin", 1],
  ]);
  list.draw({ frames: [], report: report(), chosen: 0, samples: 0 });
  assert.deepEqual([find("#counts").textContent, find("#frames-none").hidden], ["", false]);
});

test("what becomes of it is drawn and told field by field, and an offer is taken by choosing it", () => {
  const offered = [];
  const one = new becomes.Becomes({ offer: (what) => offered.push(what) });
  const line = {
    is: "line",
    fields: { login: "ann", time: 1795499520000, emotes: [["owl", "/owl.png"]] },
    lacks: ["avatar"],
    unread: [
      { path: "tint", value: "#fff", offers: ["colour", "text"] },
      { path: "n", value: null, offers: [] },
    ],
  };
  const card = { i: 1, t: 0, k: "said", n: "<b>Ann</b>", c: "#fff", m: ["circle", "#fff"], f: [["text", "<i>hi</i>"]] };
  one.draw({ chosen: [line, { is: "delete", fields: { id: "7" }, lacks: [], unread: [] }], drawn: [card] }, {});
  assert.match(find(".drawn-line").textContent, /<b>Ann<\/b>.*<i>hi<\/i>/);
  assert.equal(find(".drawn-deed").textContent, "Takes the line 7 away.");
  assert.deepEqual(
    all(".fields-list dd > span:first-child").map((field) => field.textContent),
    ["ann", "2026-11-24T05:52:00.000Z", "owl, /owl.png", "#fff", "null", "not given", "7"],
  );
  const [tint, nothing] = all(".unread-row select");
  assert.equal(nothing.disabled, true);
  tint.value = "colour";
  tint.dispatchEvent(new globalThis.Event("change", { bubbles: true }));
  one.draw({ chosen: [{ is: null, fields: {}, lacks: [], unread: [], kinds: ["line", "delete"] }], drawn: [] }, {});
  find(".unknown select").value = "delete";
  find(".unknown button").click();
  assert.deepEqual(offered, [
    { item: 0, path: "tint", field: "colour" },
    { item: 0, is: "delete" },
  ]);
  one.draw({ chosen: [{ is: "nothing", fields: {}, lacks: [], unread: [] }], drawn: [] }, {});
  assert.deepEqual([find("#drawn").textContent, find(".fields-list")], ["Is left out.", null]);
  one.draw({ chosen: null, drawn: [] }, undefined);
  assert.equal(find("#drawn").textContent, "Choose a frame.");
});
