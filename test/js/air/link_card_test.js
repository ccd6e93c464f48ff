import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, eachOnAPage, find, page, said, serve, settled, type } from "../support/page.js";
import { LinkCard } from "../../../assets/js/air/link_card.js";

const COVERED = "http://x/air/••••";
eachOnAPage({
  html: `<article data-stage="3"><div class="thumb"></div><span data-show="size"></span><span data-show="screens"></span><select data-doubt><option value="15">15 s</option><option value="">never</option></select>
    <input data-link="http://x/air/secret" data-covered="${COVERED}" value="${COVERED}"><button data-do="copy"></button><button data-do="open"></button>
    <button data-do="uncover" aria-pressed="false"><svg><use href=""></use></svg></button><button data-do="renew"></button>
    <div data-two hidden></div><input data-behind-link data-covered="${COVERED}/behind" value="${COVERED}/behind"><button data-do="copy-behind"></button>
    <button data-copy="width">Width <b></b></button><div data-show="list"></div><button data-do="test"></button><input data-count value="2">
    <button data-do="clear"></button><input data-test="name"><select data-test="feed"><option value="">tests</option><option value="7">Oxbow</option></select>
    <select data-test="into"><option value=""></option><option value="draft"></option></select><textarea data-test="text"></textarea><button data-awkward='["Ann","~~~"]'></button><input data-options><p data-show="options"></p><a data-draft href="/stage/3/draft"></a></article><div id="messages"></div>`,
});

const SCREEN = {
  fine: true,
  from: "127.0.0.1",
  words: "drawn at its true size",
  revision: 4,
  current: true,
  hidden: false,
  not_understood: [],
  missing: [],
  heard: 200,
  drawn: [1920, 1080],
  rate: 60,
};
const STAGE = {
  size: { width: 1920, height: 1080, frame_rate: 60 },
  revision: 4,
  behind: false,
  screens: [SCREEN],
  backdrop: "dawn",
  boxes: [["chat", 192, 108, 960, 540]],
};

let card;
let copied;
const press = async (what) => {
  find(`[data-do="${what}"]`).click();
  await settled();
};
const options = async (text) => {
  find("[data-options]").value = text;
  find("[data-options]").dispatchEvent(new globalThis.Event("input"));
  await settled();
};

beforeEach(() => {
  copied = [];
  Object.defineProperty(globalThis, "navigator", {
    configurable: true,
    value: { clipboard: { writeText: async (text) => copied.push(text) } },
  });
  serve({
    "/links/3/new-link": { link: "http://x/air/new" },
    "/links/3/test": { sent: 2 },
    "/links/3/clear": {},
    "/links/options": { understood: ["size 34"], not_understood: ["sparkle=1"] },
  });
  card = new LinkCard(find("article"));
  card.tell(STAGE);
});

test("a link is covered until somebody asks, and copied all the same", async () => {
  assert.equal(find("[data-link]").value, COVERED);
  await press("copy");
  assert.deepEqual([copied, said()], [["http://x/air/secret"], ["The link is copied."]]);
  await press("uncover");
  assert.deepEqual([find("[data-link]").value, find("[data-behind-link]").value], ["http://x/air/secret", "http://x/air/secret/behind"]);
  assert.equal(find('[data-do="uncover"]').getAttribute("aria-label"), "Cover the link");
  await press("uncover");
  assert.deepEqual([find("[data-link]").value, find("[data-behind-link]").value], [COVERED, `${COVERED}/behind`]);
});

test("a new link takes the place of the old one and stays as covered as it was", async () => {
  await press("renew");
  assert.equal(find("[data-link]").value, COVERED);
  await press("copy-behind");
  assert.deepEqual(copied, ["http://x/air/new/behind"]);
  await press("uncover");
  await press("renew");
  assert.equal(find("[data-link]").value, "http://x/air/new");
});

test("options come behind the link and are read back in words", async () => {
  await options("?size=34&sparkle=1");
  await press("copy");
  assert.deepEqual(copied, ["http://x/air/secret?size=34&sparkle=1"]);
  assert.equal(find('[data-show="options"]').textContent, "Understood: size 34. Not understood: sparkle=1.");
  assert.deepEqual(page.asked[0], ["/links/options?options=%3Fsize%3D34%26sparkle%3D1", undefined]);
});

test("an answer to what was typed before is not shown", async () => {
  const answers = [];
  globalThis.fetch = (path) =>
    new Promise((done) => answers.push(() => done({ ok: true, json: async () => ({ understood: [path.slice(-1)], not_understood: [] }) })));
  await options("a");
  await options("b");
  answers[1]();
  await settled();
  answers[0]();
  await settled();
  assert.equal(find('[data-show="options"]').textContent, "Understood: b.");
});

test("its figures can be copied one by one", async () => {
  find('[data-copy="width"]').click();
  await settled();
  assert.deepEqual([copied, said(), find('[data-copy="width"] b').textContent], [["1920"], ["Width is copied."], "1920"]);
});

test("where the browser gives no clipboard it is copied the old way", async () => {
  const ways = [];
  Object.defineProperty(globalThis, "navigator", {
    configurable: true,
    value: { clipboard: { writeText: () => Promise.reject(new Error("no")) } },
  });
  page.document.execCommand = (what) => ways.push(what, find("textarea:not([data-test])").value);
  await press("copy");
  assert.deepEqual([ways, find("textarea:not([data-test])"), said()], [["copy", "http://x/air/secret"], null, ["The link is copied."]]);
});

test("how many screens there may be is told where the server says so", () => {
  const words = (most) => {
    card.tell({ ...STAGE, screens: Array(4).fill(SCREEN), most_screens: most });
    return find('[data-show="screens"]').textContent;
  };
  assert.deepEqual([null, 5].map(words), ["4 screens", "4 of 5 screens there may be"]);
});

test("a test says how many screens it went to", async () => {
  await press("test");
  card.tell({ ...STAGE, screens: [] });
  await press("test");
  assert.deepEqual(said(), ["2 test lines sent to 1 screen.", "The test is sent, but no screen shows this link."]);
  assert.deepEqual(page.asked[0], ["/links/3/test", { count: "2" }]);
  await press("clear");
  assert.equal(said().at(-1), "The screen is cleared. New lines come in as before.");
});

test("a test is what a host types, by whom, with whose mark, and where they say", async () => {
  type(find('[data-test="text"]'), "is this readable?");
  type(find('[data-test="feed"]'), "7");
  await press("test");
  assert.deepEqual(page.asked.at(-1), ["/links/3/test", { count: "2", feed: "7", text: "is this readable?" }]);
  type(find('[data-test="into"]'), "draft");
  find("[data-awkward]").click();
  await settled();
  assert.deepEqual(page.asked.at(-1), ["/links/3/test", { count: "2", name: "Ann", feed: "7", into: "draft", text: "~~~" }]);
  assert.equal(said().at(-1), "2 test lines sent into the draft.");
});

test("a link is opened without an address that a browser would show where the mouse is", async () => {
  const opened = [];
  page.window.open = (...how) => opened.push(how);
  await press("open");
  assert.deepEqual(opened, [["http://x/air/secret", "_blank", "noopener"]]);
  assert.equal(all("a[href*=secret]").length, 0);
});

const rows = () => all(".screen").map((row) => [row.className, ...[...row.querySelectorAll("p, .figure")].map((part) => part.textContent)]);
const told = (screen, stage = {}) => {
  card.tell({ ...STAGE, ...stage, screens: [{ ...SCREEN, ...screen }] });
  return rows()[0];
};

test("each screen says where it is, what it shows and what is wrong with it", () => {
  assert.deepEqual(told({}), [
    "screen fine",
    "This computer, screen 1",
    "drawn at its true size; shows r4.",
    "1920 × 1080",
    "60 fps",
    "just now",
  ]);
  assert.deepEqual(
    told({
      fine: false,
      from: "10.0.0.7",
      current: false,
      revision: 3,
      hidden: true,
      not_understood: ["a"],
      missing: ["Bitter"],
      advice: "Do this.",
      drawn: null,
      heard: 61_000,
    }),
    [
      "screen mind",
      "Computer at 10.0.0.7, screen 1",
      "drawn at its true size; still shows r3; hidden, kept loaded; its link has options that are not understood: a; its computer does not have the face Bitter, another stands in.",
      "Nothing is heard of it: what was taken away since then may still stand there.",
      "Do this.",
      "–",
      "paused",
      "1 min ago",
    ],
  );
  assert.match(told({ revision: 1, current: false }, { revision: 0 })[2], /shows an empty picture/);
  assert.match(told({ side: "behind" }, { behind: true })[2], /behind the camera/);
  assert.doesNotMatch(told({ side: "behind" })[2], /camera/);
  assert.equal(told({ rate: 0 })[4], "–");
  const unheard = (heard, doubt_s) => told({ heard }, { doubt_s })[3];
  assert.equal(unheard(4900, 15), "1920 × 1080");
  assert.equal(unheard(6000, 15), "Nothing is heard of it: after 15 s chat leaves it.");
  assert.equal(unheard(15_100, 15), "Nothing is heard of it, so chat has left it. It comes back by itself.");
  assert.equal(unheard(60_000, null), "Nothing is heard of it: what was taken away since then may still stand there.");
});

test("what is drawn small stands where it stands on the stage", () => {
  const box = find(".thumb i");
  assert.deepEqual([box.className, box.style.left, box.style.top, box.style.width, box.style.height], ["chat", "10%", "10%", "50%", "50%"]);
  assert.equal(find('[data-show="size"]').textContent, "1920 × 1080 · r4");
  card.tell({ ...STAGE, revision: 0, behind: true, screens: [] });
  assert.equal(find('[data-show="size"]').textContent, "1920 × 1080 · nothing on air yet");
  assert.deepEqual([find("[data-two]").hidden, find('[data-show="screens"]').textContent], [false, "no screen yet"]);
});
