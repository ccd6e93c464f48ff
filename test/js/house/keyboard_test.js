import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, eachOnAPage, find, openPage, page } from "../support/page.js";
import { keepKeyboard } from "../../../assets/js/house/keyboard.js";

eachOnAPage();

const button = (words) => `<button aria-label="${words}" tabindex="0">${words}</button>`;

beforeEach(() => {
  openPage({
    html: `<div id="work" tabindex="-1"><button id="open-it" aria-controls="sheet" tabindex="0">Open</button>
      <ul id="rules">${["one", "two", "three"].map((words) => `<li>${button(words)}</li>`).join("")}</ul>
      <div id="sheet">${button("close")}<input id="field" tabindex="0"></div></div>`,
  });
  keepKeyboard();
});

// What was changed is looked at with the next frame.
async function changed(change) {
  change();
  await null;
  for (const told of page.watchers) told();
  page.clock.pass(20);
}
const named = (words) => all("[aria-label]").find((one) => one.getAttribute("aria-label") === words);
const at = () => page.document.activeElement.getAttribute("aria-label") ?? page.document.activeElement.id;

test("what is drawn anew has the keyboard again", async () => {
  named("two").focus();
  await changed(() => {
    const list = find("#rules");
    list.replaceChildren(...[...list.children].map((item) => item.cloneNode(true)));
  });
  assert.equal(at(), "two");
});

test("where it was taken away, what stands in its place has it", async () => {
  named("two").focus();
  await changed(() => named("two").parentElement.remove());
  assert.equal(at(), "three");
  await changed(() => named("three").parentElement.remove());
  assert.equal(at(), "one");
});

test("where it can be pressed no more, what stands beside it has it, and no piece is chosen by that", async () => {
  named("two").focus();
  await changed(() => {
    named("two").disabled = true;
  });
  assert.equal(at(), "three");
  const hand = page.document.createElement("p");
  hand.innerHTML = `<span class="hand" tabindex="0" aria-label="piece"></span>`;
  find("#work").append(hand);
  named("piece").focus();
  named("close").focus();
  await changed(() => find("#sheet").remove());
  assert.equal(at(), "open-it");
  await changed(() => find("#work").replaceChildren(hand));
  assert.equal(at(), "work");
});

test("where all of it is gone, what opened it has it, and never a field that nobody chose", async () => {
  named("close").focus();
  await changed(() => named("close").remove());
  assert.equal(at(), "open-it");
});

test("else where it was before, and at the work in the end", async () => {
  named("one").focus();
  const away = page.document.createElement("p");
  away.innerHTML = button("undo");
  page.document.body.append(away);
  named("undo").focus();
  await changed(() => away.remove());
  assert.equal(at(), "one");
  await changed(() => find("#work").replaceChildren());
  assert.equal(at(), "work");
});

test("what is left on purpose stays left", async () => {
  named("one").focus();
  named("one").blur();
  await changed(() => find("#rules").append(page.document.createElement("li")));
  assert.equal(page.document.activeElement, page.document.body);
  await changed(() => named("one").parentElement.remove());
  assert.equal(page.document.activeElement, page.document.body);
});
