import assert from "node:assert/strict";
import { before, beforeEach, test } from "node:test";
import { card } from "../support/cards.js";
import { all, called, find, openPage, page, pressable, said, serve, settled, type } from "../support/page.js";
import { OFFERS } from "../support/offers.js";

let side;
let deeds;
const heads = () => find("#side-title").textContent;
const open = async (what, given) => {
  await side.open(what, given);
  await settled();
};

before(async () => {
  openPage({
    html: `<div id="scroller" tabindex="0"></div><aside id="side" hidden><h2 id="side-title"></h2><div id="side-body"></div>
      <button id="side-close"></button></aside><div id="messages"></div>`,
    data: { setup: JSON.stringify({ base: "/prompter", acts: true, signed_in: true, offers: OFFERS }) },
  });
  const [{ Side }, { Deeds }] = await Promise.all(["side", "deeds"].map((name) => import(`../../../assets/js/prompter/${name}.js`)));
  deeds = new Deeds();
  side = new Side({ deeds, goTo: () => {} });
});
beforeEach(() => {
  page.asked.length = 0;
  find("#messages").replaceChildren();
});

const PERSON = {
  login: "bo",
  name: "Bo",
  feed: 2,
  feed_name: "Oxbow",
  mark: ["circle", "#5fb8d6"],
  lines: 2,
  first: 0,
  last: 0,
  left_out: false,
};
const deed = (id, more = {}) => ({ id, what: "pull", by: "Teo", about: "Bo", at: 0, undone: null, back: true, ...more });

test("where a line went stands step by step, with the line as it is now", async () => {
  serve({
    "/prompter/trace/5": {
      line: card(5, "as it is now"),
      steps: [
        { kind: "came", plus: "+0 ms", title: "Came in", words: "from Oxbow" },
        { kind: "off", plus: "+2 ms", title: "Kept off", words: null },
      ],
    },
  });
  await open("trace", card(5, "as it was"));
  assert.deepEqual([heads(), find("#side").hidden], ["Where this line went", false]);
  assert.match(find(".traced").textContent, /as it is now/);
  assert.deepEqual(
    all(".trace li").map((step) => [step.className, step.textContent]),
    [
      ["came", "+0 msCame infrom Oxbow"],
      ["off", "+2 msKept off"],
    ],
  );
});

test("a person is asked for by feed and login, whichever row they were pressed in", async () => {
  serve({ "/prompter/person": { person: { ...PERSON, feed_name: null }, lines: [], deeds: [] } });
  await open("person", card(5, "hi", { fd: 2, p: "b o&x" }));
  await open("person", { feed: 2, login: "bo" });
  assert.deepEqual(
    page.asked.map(([path]) => path),
    ["/prompter/person?feed=2&login=b+o%26x", "/prompter/person?feed=2&login=bo"],
  );
  assert.match(find("#side-body").textContent, /a chat that is gone, signed in as bo/);
  assert.match(find("#side-body").textContent, /Nothing yet\./);
  assert.equal(find("#side-body a").getAttribute("href"), "/log/?person=bo&feed=2");
});

test("a note is kept for everybody, and who wrote it stands below", async () => {
  serve({
    "/prompter/person": {
      person: { ...PERSON, note: "Asks about owls", noted_by: "Teo", noted_ms: new Date(2026, 10, 30, 12).getTime() },
      lines: [],
      deeds: [deed(1)],
    },
    "/prompter/act": { done: true },
  });
  await open("person", card(5, "hi", { fd: 2, p: "bo" }));
  assert.equal(called("Note, for everybody with a role").value, "Asks about owls");
  assert.match(find("#side-body").textContent, /Noted by Teo, 30 Nov 2026/);
  assert.match(find(".deeds").textContent, /Teo pulled a line of Bo/);
  type(called("Note, for everybody with a role"), "Knows owls");
  await settled();
  assert.deepEqual(page.asked.at(-1), ["/prompter/act", { do: "note", name: "bo", feed: 2, text: "Knows owls" }]);
  assert.deepEqual(said(), ["Noted."]);
});

test("somebody is left out and taken back, and the sheet shows which", async () => {
  let out = false;
  serve({
    "/prompter/person": () => ({ person: { ...PERSON, left_out: out }, lines: [], deeds: [] }),
    "/prompter/act": (what) => {
      out = what.do === "leave_out";
      return { done: true };
    },
  });
  await open("person", card(5, "hi", { fd: 2, p: "bo" }));
  pressable("Leave out").click();
  await settled();
  await settled();
  assert.deepEqual([said(), find(".chip.off").textContent], [["Bo is left out."], "left out"]);
  pressable("Take back").click();
  await settled();
  await settled();
  assert.deepEqual([find(".chip.off"), pressable("Leave out") !== undefined], [null, true]);
});

test("a line that is found opens its own way, and nothing found says what to do", async () => {
  serve({ "/prompter/trace/8": { line: null, steps: [] } });
  side.found([card(7, "seven"), card(8, "eight")], "Found: 2");
  all(".side-lines .row")[1].querySelector(".text").click();
  await settled();
  assert.deepEqual([page.asked[0][0], heads()], ["/prompter/trace/8", "Where this line went"]);
  assert.match(find(".traced").textContent, /eight/);
  side.found([], "Found: 0");
  assert.match(find("#side-body").textContent, /Fewer words find more/);
});

test("people that are found open one by one", async () => {
  serve({ "/prompter/person": { person: PERSON, lines: [card(3, "three")], deeds: [] } });
  side.people([PERSON, { ...PERSON, login: "cy", name: "<b>Cy", mark: null }], "People");
  assert.deepEqual(
    all(".found-person").map((row) => row.textContent),
    ["Bo2 lines", "<b>Cy2 lines"],
  );
  all(".found-person")[1].click();
  await settled();
  assert.equal(page.asked[0][0], "/prompter/person?feed=2&login=cy");
  assert.match(find(".side-lines").textContent, /three/);
  side.people([], "People");
  assert.match(find("#side-body").textContent, /Nobody of that name/);
});

test("what was done goes on by itself while it is open, and not once it is closed", async () => {
  await open("done");
  assert.match(find(".deeds").textContent, /stands here, with who and when/);
  deeds.take([deed(1)]);
  assert.match(find(".deeds").textContent, /Teo pulled a line of Bo/);
  find("#side-close").click();
  assert.deepEqual([find("#side").hidden, page.document.activeElement], [true, find("#scroller")]);
  deeds.take([deed(2)]);
  assert.equal(find("#side").hidden, true);
});

test("what cannot be asked is said and leaves what stands there", async () => {
  serve({ "/prompter/trace": { error: "That line is gone." } });
  side.found([], "Found: 0");
  await open("trace", card(1));
  assert.deepEqual([said(), heads()], [["That line is gone."], "Found: 0"]);
});

test("an answer that comes when something else was opened meanwhile draws nothing", async () => {
  let late;
  serve({
    "/prompter/trace/1": new Promise((answer) => {
      late = answer;
    }),
  });
  const traced = side.open("trace", card(1));
  side.found([], "Found: 0");
  late({ line: null, steps: [] });
  await traced;
  assert.equal(heads(), "Found: 0");
});

test("a link is covered until it is asked for, made with the rights that were chosen, and taken back", async () => {
  const link = (id, acts) => ({ id, name: `Panel ${id}`, acts, link: `http://x/p/secret${id}` });
  serve({
    "/prompter/links/1/back": { links: [] },
    "/prompter/links": (what) => ({ links: what ? [link(1, what.acts), link(2, !what.acts)] : [] }),
  });
  await open("links");
  assert.equal(all(".links li").length, 0);
  called("Name of the link").value = "Panel";
  called("What it allows").value = "1";
  find(".link-form").dispatchEvent(new globalThis.Event("submit", { bubbles: true, cancelable: true }));
  await settled();
  assert.deepEqual(page.asked.at(-1), ["/prompter/links", { name: "Panel", acts: true }]);
  assert.deepEqual(
    all(".links li > .said").map((words) => words.textContent),
    ["a moderator’s rights", "to read only"],
  );
  const address = called("The link Panel 1");
  assert.equal(address.type, "password");
  pressable("Show").click();
  assert.equal(address.type, "text");
  pressable("Show").click();
  assert.equal(address.type, "password");
  pressable("Take back").click();
  await settled();
  assert.deepEqual([page.asked.at(-1)[0], all(".links li").length], ["/prompter/links/1/back", 0]);
});
