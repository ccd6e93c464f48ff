import assert from "node:assert/strict";
import { test } from "node:test";
import { all, eachOnAPage, find, page, pressable, serve, settled } from "../support/page.js";
import { sendFiles } from "../../../assets/js/house/send.js";

eachOnAPage({ html: '<div id="messages"></div>' });

const answers = (...states) =>
  serve({
    "/bring": { taking: "t1", name: "wren.gif" },
    "/dress/files/takings/t1": () => states.shift(),
    "/dress/files/takings/t1/stop": {},
  });
const bring = () => sendFiles("/bring", new FormData());

async function passing() {
  await settled();
  page.clock.pass(500);
  await settled();
}

test("what takes a while is followed until it is there, and says how far it is", async () => {
  answers({ state: "running", share: 40 }, { state: "done", share: 100, result: { id: 7 } });
  const whole = bring();
  await settled();
  assert.equal(find(".import-line span").textContent, "“wren.gif” is made anew");
  await passing();
  assert.equal(find("progress").value, 40);
  await passing();
  assert.deepEqual([await whole, all(".import-line").length], [{ id: 7 }, 0]);
});

test("what is refused or stopped says so, and gives nothing", async () => {
  for (const [state, words] of [
    [{ state: "refused", words: "“wren.gif” was not taken." }, "“wren.gif” was not taken."],
    [{ state: "stopped" }, "“wren.gif” was stopped. Nothing was changed."],
  ]) {
    answers(state);
    const whole = bring().catch((error) => error.message);
    await settled();
    pressable("Stop").click();
    await passing();
    assert.deepEqual([await whole, all(".import-line").length], [words, 0]);
    assert.ok(page.asked.some(([path]) => path.endsWith("/t1/stop")));
  }
});

test("what is there at once is not followed", async () => {
  serve({ "/bring": { file: 3 } });
  assert.deepEqual(await bring(), { file: 3 });
});
