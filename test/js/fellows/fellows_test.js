import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, called, eachOnAPage, find, page, pressable, run, said, serve, settled, type } from "../support/page.js";

eachOnAPage({
  html: `<span id="on-air"><b></b></span><div id="messages"></div><dl id="keys-list"></dl><button id="show-keys"></button><dialog id="keys"></dialog><p id="empty" hidden></p><div id="fellows"></div>
    <form id="add"><input name="name"></form>`,
});

const FELLOW = {
  id: 3,
  name: "Ines",
  words: "Owls at dusk",
  last_shown: null,
  followers: "1 204",
  picture: "abc",
  clips: [["f1", "Dusk.webm"]],
};
const choose = (input, name) => {
  Object.defineProperty(input, "files", { configurable: true, value: [new page.window.File(["x"], name)] });
  input.dispatchEvent(new globalThis.Event("change", { bubbles: true }));
};

beforeEach(async () => {
  globalThis.FormData = page.window.FormData;
  serve({
    "/dress/fellows/sheet": { fellows: [FELLOW] },
    "/dress/fellows/3/remove": { fellows: [] },
    "/dress/fellows/3/put-back": { fellows: [FELLOW] },
    "/dress/fellows/3/clips/f1/remove": { fellows: [{ ...FELLOW, clips: [] }] },
    "/dress/fellows/3/clips/f1/put-back": { fellows: [FELLOW] },
    "/dress/fellows/3/picture": { fellows: [{ ...FELLOW, picture: "new" }] },
    "/dress/fellows/3": {},
  });
  await run("fellows/main.js");
  page.asked.length = 0;
});

test("a card shows what is known, with a name for every field", () => {
  assert.deepEqual(
    ["Name", "A few words", "What they last showed", "How many follow them"].map((label) => called(`${label} of Ines`).value),
    ["Ines", "Owls at dusk", "", "1 204"],
  );
  assert.deepEqual([find("#empty").hidden, find("img").getAttribute("src")], [true, "/pictures/abc-2.webp"]);
});

test("a field that is changed is kept alone, and the card is not drawn anew under the hand", async () => {
  const field = called("A few words of Ines");
  type(field, "Nightjars");
  await settled();
  assert.deepEqual(page.asked, [["/dress/fellows/3", { words: "Nightjars" }]]);
  assert.equal(called("A few words of Ines"), field);
});

test("a card and a clip that are taken away come back", async () => {
  called("Without Dusk.webm").click();
  await settled();
  assert.deepEqual([all(".chip").length, said()], [0, ["“Dusk.webm” is no clip of theirs any more."]]);
  pressable("Undo").click();
  await settled();
  assert.equal(all(".chip").length, 1);
  called("Take the card of Ines away").click();
  await settled();
  assert.deepEqual([find("#empty").hidden, find("#fellows").hidden], [false, true]);
  pressable("Undo").click();
  await settled();
  assert.deepEqual([find("#fellows").hidden, all(".fellow-card").length], [false, 1]);
});

test("it is shown by a press, and said so only when it was taken", async () => {
  pressable("Show it now").click();
  await settled();
  serve({ "/dress/fellows/3/play": { error: "There is no place for it on the stage." } });
  pressable("Show it now").click();
  await settled();
  assert.deepEqual(said(), ["The card of Ines is on its way.", "There is no place for it on the stage."]);
});

test("a picture and a clip are sent as files, a clip with a word that it takes a while", async () => {
  choose(called("Picture of Ines"), "ines.png");
  await settled();
  assert.equal(find("img").getAttribute("src"), "/pictures/new-2.webp");
  serve({ "/dress/fellows/3/clips": { error: "That is no film." } });
  choose(called("A clip of Ines"), "owl.webm");
  await settled();
  assert.deepEqual(
    page.asked.map(([path]) => path),
    ["/dress/fellows/3/picture", "/dress/fellows/3/clips"],
  );
  assert.match(said()[0], /takes about as long/);
  assert.deepEqual([said()[1], all(".chip").length], ["That is no film.", 1]);
});

test("a new one is added by name, and a refused name stays in the field", async () => {
  const add = async () => {
    find("#add").dispatchEvent(new globalThis.Event("submit", { bubbles: true, cancelable: true }));
    await settled();
  };
  find("#add [name=name]").value = "Bo";
  serve({ "/dress/fellows/": { error: "There is one of that name." } });
  await add();
  assert.deepEqual([find("#add [name=name]").value, said()], ["Bo", ["There is one of that name."]]);
  serve({ "/dress/fellows/": { fellows: [FELLOW, { ...FELLOW, id: 4, name: "Bo", picture: null, clips: [] }] } });
  await add();
  assert.deepEqual([find("#add [name=name]").value, all(".fellow-card").length], ["", 2]);
});
