import assert from "node:assert/strict";
import { before, beforeEach, test } from "node:test";
import { all, called, find, openPage, page, said, serve, settled } from "../support/page.js";

const CHOICE = (value, parts, more = "") =>
  `<label><input type="radio" name="choice" value="${value}" data-parts="${parts}" data-name="Name" ${more}><i class="kind-mark" data-mark='["circle","#5fb8d6"]'></i></label>`;

let socket;
let number = 0;
const told = { in: 0, off: 0, aired: 0, feeds: 0, live: 0, trouble: 0, waiting: 0, screens: 0, emotes: 0, held: 0, rate: 12 };
const feed = (id, more = {}) => ({
  id,
  name: `Feed ${id}`,
  words: "",
  kind: "irc",
  platform: "oxbow",
  mark: ["circle", "#5fb8d6"],
  state: "live",
  since: 0,
  reason: "",
  lines: [],
  pace: [],
  rate: 0,
  ...more,
});
function tell(feeds, answers = []) {
  number += 1;
  socket.tell({ at: `a:${number}`, whole: number === 1, now: 0, figures: told, feeds, answers });
}
const submit = async (form) => {
  find(form).dispatchEvent(new globalThis.Event("submit", { bubbles: true, cancelable: true }));
  await settled();
};
function choose(value) {
  for (const radio of all("[name=choice]")) radio.checked = radio.value === value;
  find("#add [name=choice]:checked").dispatchEvent(new globalThis.Event("change", { bubbles: true }));
}
const visible = () =>
  all("[data-part]")
    .filter((part) => !part.hidden)
    .map((part) => part.dataset.part);

before(async () => {
  openPage({
    html: `<main data-said="Permission was given."></main><div id="messages"></div><div id="lanes"></div><p id="empty"><button id="empty-add">Connect a chat</button></p><p id="summary"></p>
      <span id="on-air"><b></b></span><dl id="keys-list"></dl><button id="show-keys"></button><dialog id="keys"></dialog>
      <button id="add-open"></button><section id="add" hidden><form id="add-form">${CHOICE("known:oxbow", "address channel", "checked")}${CHOICE("known:lantern", "address", 'data-consent="/go"')}
      ${CHOICE("voice:croft", "rooms")}${CHOICE("kind:inbox", "inbox")}<div data-part="address rooms"><input name="address"></div><div data-part="channel"></div><div data-part="inbox"></div>
      <div data-part="consent"><a id="add-consent"><b></b></a></div><div data-part="rooms"><div id="rooms"></div><select id="follow"></select><div class="read-text"><select id="written"></select></div></div>
      <p id="add-error" hidden></p><button type="button" id="add-anyway" hidden>Anyway</button><p id="add-trying" hidden></p><button id="add-do"></button></form><button id="add-close"></button></section>
      <section id="answer"><p id="answer-lacks"></p><form id="answer-form"><input name="text"><div id="answer-feeds"></div></form><p id="answer-error" hidden></p><div id="answers"></div></section>
      <dialog id="inbox"><input id="inbox-expects"><button id="inbox-expects-do"></button><p id="inbox-error"></p><input id="inbox-address" readonly><input id="inbox-secret" readonly><textarea id="inbox-curl"></textarea></dialog><button id="inbox-show"></button>
      <dialog id="sets"><ul id="set-list"></ul></dialog><dialog id="microphones"><form id="microphones-form"><h2 id="microphones-title"></h2><ul id="microphone-list"></ul><input id="microphone-name"><datalist id="microphone-cast"></datalist><p id="microphones-error"></p><input type="checkbox" id="microphone-anybody"><button type="button" id="microphone-anybody-copy"></button><button type="button" id="microphones-close"></button></form></dialog>
      <div id="name-field"></div><details><div id="more-fields"></div></details><dialog id="mapping"><form id="mapping-form"></form></dialog><p id="mapping-error"></p><button id="mapping-close"></button>
      <dialog id="room-sheet"><form id="room-form"></form></dialog><button id="room-close"></button>`,
  });
  globalThis.FormData = page.window.FormData;
  await import("../../../assets/js/feeds/main.js");
  socket = page.sockets.at(-1);
  socket.open();
});
beforeEach(() => {
  page.asked.length = 0;
  find("#messages").replaceChildren();
});

test("feeds come and go by what is told, each in its own lane", () => {
  tell([]);
  assert.deepEqual([find("#empty").hidden, find("#summary").textContent], [false, ""]);
  tell([feed(1), feed(2)]);
  const lane = find(".lane");
  assert.deepEqual(
    [all(".lane").length, find("#empty").hidden, find("#summary").textContent],
    [2, true, "2 chats become one stream: 12 a minute just now."],
  );
  tell([feed(1)]);
  assert.deepEqual([all(".lane").length, find(".lane") === lane], [1, true]);
  tell([]);
});

test("the form asks for what the chosen kind needs", () => {
  find("#empty-add").click();
  assert.deepEqual([find("#add").hidden, find("#empty").hidden, find("#add-open").getAttribute("aria-expanded")], [false, true, "true"]);
  assert.deepEqual(visible(), ["address rooms", "channel"]);
  choose("known:lantern");
  assert.deepEqual(
    [visible(), find("#add-consent").getAttribute("href"), find("#add-consent").textContent],
    [["address rooms", "consent"], "/go", "Ask Name for permission"],
  );
  choose("kind:inbox");
  assert.deepEqual([visible(), find("#add-do").textContent], [["inbox"], "Make the address"]);
  serve({ "/feeds/rooms": { rooms: [], texts: [] } });
  choose("voice:croft");
  assert.equal(page.asked[0][0], "/feeds/rooms?platform=croft");
  find("#add-open").click();
  assert.equal(find("#add").hidden, true);
});

test("what is refused is said beside the form, its field marked, and may be added all the same where that helps", async () => {
  find("#add-open").click();
  choose("known:oxbow");
  find("[name=address]").value = "reedmere";
  let answer;
  serve({
    "/feeds/": () =>
      new Promise((done) => {
        answer = done;
      }),
  });
  await submit("#add-form");
  assert.equal(find("#add-trying").hidden, false);
  answer({ error: "Nobody answers there.", field: "address", anyway: true });
  await settled();
  assert.deepEqual(
    [find("#add-error").textContent, find("#add-anyway").hidden, find("#add-trying").hidden, find("#add").hidden],
    ["Nobody answers there.", false, true, false],
  );
  assert.ok(find("[name=address]").classList.contains("wrong"));
  serve({ "/feeds/": { found: "It is there: 3 people talk." } });
  find("#add-anyway").click();
  await settled();
  assert.deepEqual(page.asked.at(-1), ["/feeds/", { address: "reedmere", known: "oxbow", anyway: "1" }]);
  assert.deepEqual([said(), find("#add").hidden, find("#add-error").hidden], [["It is there: 3 people talk."], true, true]);
});

test("an address that was made is shown at once, covered", async () => {
  find("#add-open").click();
  choose("kind:inbox");
  serve({ "/feeds/": { inbox: { address: "http://x/in/abc", secret: "s3cret" } } });
  await submit("#add-form");
  assert.deepEqual([find("#inbox").open, /s3cret|abc/.test(find("#inbox-secret").value + find("#inbox-address").value)], [true, false]);
});

test("an answer goes to the ticked chats, and what each said stands below", async () => {
  const feeds = [feed(1, { answers: true }), feed(2, { answers: true }), feed(3)];
  tell(feeds);
  called("Answer in Feed 2").checked = false;
  tell([...feeds, feed(4, { answers: true })]);
  assert.deepEqual([find("#answer").hidden, all("[name=feed]").map((box) => box.checked)], [false, [true, false, true]]);
  find("[name=text]").value = "hello";
  serve({ "/feeds/answer": { error: "That is too long." } });
  await submit("#answer-form");
  assert.deepEqual(
    [page.asked, find("#answer-error").textContent, find("[name=text]").value],
    [[["/feeds/answer", { text: "hello", feeds: "1,4" }]], "That is too long.", "hello"],
  );
  serve({ "/feeds/answer": {} });
  await submit("#answer-form");
  assert.deepEqual([find("#answer-error").hidden, find("[name=text]").value], [true, ""]);
  tell(feeds, [
    {
      at: 0,
      text: "<b>hello",
      feeds: [
        { id: 1, state: "went" },
        { id: 9, state: "refused", reason: "Too fast." },
      ],
    },
  ]);
  assert.match(find("#answers").textContent, /<b>hellowentdid not go: Too fast\.$/);
  tell([feed(3)]);
  assert.equal(find("#answer").hidden, true);
});
