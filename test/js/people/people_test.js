import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { eachOnAPage, find, page, run, said, serve, settled, type } from "../support/page.js";

eachOnAPage({
  html: `<span id="on-air"><b></b></span><dl id="keys-list"></dl><button id="show-keys"></button><dialog id="keys"></dialog><div id="messages"></div>
    <div data-account="7"><select class="role"><option value="moderator">Moderator</option><option value="director">Director</option></select>
    <button class="remove"></button></div><div data-account="8"></div>
    <div data-invitation="3"><button class="take-back"></button></div><button class="go" data-show="5"></button>
    <form id="invite"><select name="role"><option value="moderator">M</option><option value="director">D</option></select></form>
    <p id="role-words" data-words='{"moderator":"pull lines","director":"do nearly all"}'></p>
    <div id="invited" hidden><input></div><button id="copy-invitation"></button>`,
});

let reloaded;
beforeEach(async () => {
  reloaded = 0;
  globalThis.location = {
    reload() {
      reloaded += 1;
    },
  };
  globalThis.FormData = page.window.FormData;
  serve({
    "/people/7/role": {},
    "/people/7/remove": { error: "There is nobody else." },
    "/people/invitations/3/back": {},
    "/people/show": {},
    "/people/invite": { link: "http://x/join/abc" },
  });
  await run("people/main.js");
});

test("another role counts at once and is said to", async () => {
  type(find(".role"), "director");
  await settled();
  assert.deepEqual([page.asked, said()], [[["/people/7/role", { role: "director" }]], ["Counts at once, wherever they are."]]);
});

test("what was done is seen on the page, what was refused is said and changes nothing", async () => {
  find(".take-back").click();
  find(".go").click();
  await settled();
  assert.deepEqual(
    [reloaded, page.asked],
    [
      2,
      [
        ["/people/invitations/3/back", {}],
        ["/people/show", { id: "5" }],
      ],
    ],
  );
  find(".remove").click();
  await settled();
  assert.deepEqual([reloaded, said()], [2, ["There is nobody else."]]);
});

test("what a role may is explained before anybody is invited", () => {
  const words = () => find("#role-words").textContent;
  assert.equal(words(), "May pull lines.");
  type(find("[name=role]"), "director");
  assert.equal(words(), "May do nearly all.");
});

test("an invitation is shown once, to be copied", async () => {
  find("#invite").dispatchEvent(new globalThis.Event("submit", { cancelable: true }));
  await settled();
  assert.deepEqual([find("#invited").hidden, find("#invited input").value], [false, "http://x/join/abc"]);
  const copied = [];
  Object.defineProperty(globalThis, "navigator", { configurable: true, value: { clipboard: { writeText: (text) => copied.push(text) } } });
  find("#copy-invitation").click();
  assert.deepEqual(copied, ["http://x/join/abc"]);
});

test("whoever may not invite has no form and the page works", async () => {
  find("#invite").id = "none";
  await run("people/main.js");
  assert.deepEqual(said(), []);
});
