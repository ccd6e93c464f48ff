import assert from "node:assert/strict";
import { test } from "node:test";
import { card } from "../support/cards.js";
import { bodyOf, eachOnAPage, find, openPage, page, run, said, serve, settled } from "../support/page.js";
import { OFFERS } from "../support/offers.js";
import { setup } from "../../../assets/js/prompter/door.js";
import { smallWindow } from "../../../assets/js/prompter/small.js";

eachOnAPage();

const SETUP = { base: "/prompter/secret", acts: false, host: "Odalys", signed_in: false, role: "reader", actor: "Panel", offers: OFFERS };

async function begin(over) {
  for (const name of Object.keys(setup)) delete setup[name];
  Object.assign(setup, SETUP, { over });
  openPage({ html: bodyOf("prompter"), path: "/prompter/secret/?over" });
  for (const name of ["ResizeObserver", "IntersectionObserver"])
    globalThis[name] = class {
      observe() {}
      unobserve() {}
    };
  page.window.HTMLElement.prototype.scrollIntoView = () => {};
  page.window.localStorage.setItem("bavard.prompter.look", JSON.stringify({ size: 34, off: true }));
  page.window.localStorage.setItem("bavard.prompter.speech", JSON.stringify({ which: "all" }));
  serve({ "/prompter/secret/feeds": { feeds: [], answers: [] }, "/prompter/secret/say/2": { text: "Ann says: 2" } });
  await run("prompter/main.js");
  const lines = (...cards) => ({ whole: cards[0].i === 1, at: `b:${cards[0].i}`, lines: cards });
  page.sockets.at(-1).tell(lines(card(1, "one", { s: "aired" }), card(9, "kept off", { s: "off" })));
  page.sockets.at(-1).tell(lines(card(2, "two", { s: "aired" })));
  await settled();
}

test("over a game it looks as its link says, shows nothing that was kept off, and keeps nothing of that", async () => {
  await begin({ size: 26, ground: 60 });
  const { body } = page.document;
  assert.deepEqual([body.style.getPropertyValue("--size"), body.style.getPropertyValue("--over-ground")], ["26px", "60%"]);
  assert.deepEqual(
    [...page.document.querySelectorAll("#blocks .row")].map((row) => row.dataset.line),
    ["1", "2"],
  );
  assert.deepEqual(JSON.parse(page.window.localStorage.getItem("bavard.prompter.look")), { size: 34, off: true });
  page.window.localStorage.clear();
});

test("nothing is read aloud twice: over a game not at all", async () => {
  await begin({ size: 20, ground: 0 });
  assert.deepEqual(
    page.asked.filter(([path]) => path.includes("/say/")),
    [],
  );
  await begin(null);
  assert.equal(page.asked.filter(([path]) => path.includes("/say/2")).length, 1);
  page.window.localStorage.clear();
});

test("a small window is offered where the browser has such windows, and holds the lines alone", async () => {
  Object.assign(setup, { base: "/prompter/secret" });
  const again = () => {
    openPage({ html: `<button id="open-small" hidden></button><div id="messages"></div>` });
    smallWindow(find("#open-small"));
    return find("#open-small");
  };
  delete globalThis.documentPictureInPicture;
  assert.equal(again().hidden, true);
  // A window that loads nothing.
  const held = [];
  const opened = { createElement: (name) => page.document.createElement(name), body: { style: {}, append: (...all) => held.push(...all) } };
  globalThis.documentPictureInPicture = { requestWindow: async () => ({ document: opened }) };
  const button = again();
  assert.equal(button.hidden, false);
  button.click();
  await settled();
  assert.match(held[0].getAttribute("src"), /\/prompter\/secret\/\?over&ground=100&size=16$/);
  globalThis.documentPictureInPicture.requestWindow = async () => {
    throw new Error("no");
  };
  button.click();
  await settled();
  assert.deepEqual(said(), ["The browser opened no such window."]);
  delete globalThis.documentPictureInPicture;
});
