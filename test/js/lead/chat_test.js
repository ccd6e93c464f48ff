import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { eachOnAPage, find, page, said, serve, settled, type } from "../support/page.js";
import { ChatForm } from "../../../assets/js/lead/chat.js";

eachOnAPage({
  html: `<form><select id="lead-place">
    <option data-field="channel" data-label="Channel" data-example="reedmere" data-values='{"platform":"oxbow"}'>Oxbow</option>
    <option data-field="paste" data-label="Address" data-example="irc://x" data-values='{"kind":"irc"}'>Any</option></select>
    <label id="lead-address-label"></label><input id="lead-address"><p id="lead-chat-error" hidden></p>
    <button type="button" id="lead-anyway" hidden></button></form><div id="messages"></div>`,
});

const asked = () => page.asked.filter(([path]) => path === "/feeds/").map(([, body]) => body);

beforeEach(() => new ChatForm(find("form")));

async function connect(address) {
  find("#lead-address").value = address;
  find("form").dispatchEvent(new page.window.Event("submit", { cancelable: true }));
  await settled();
}

const choose = (index) => type(find("#lead-place"), find("#lead-place").options[index].value);

test("what is asked for is what the place wants", () => {
  assert.deepEqual([find("label").textContent, find("#lead-address").placeholder], ["Channel", "reedmere"]);
  choose(1);
  assert.deepEqual([find("label").textContent, find("#lead-address").placeholder], ["Address", "irc://x"]);
});

test("it is connected by that one thing", async () => {
  serve({ "/feeds/": { found: "Reading #reedmere." } });
  await connect(" reedmere ");
  assert.deepEqual(asked(), [{ platform: "oxbow", channel: "reedmere" }]);
  assert.equal(find("#lead-address").value, "");
  assert.match(said().join(" "), /Reading #reedmere/);
});

test("what is refused says why, stays there, and can be wanted anyway", async () => {
  serve({ "/feeds/": { error: "Nobody answers there.", anyway: true } });
  choose(1);
  await connect("irc://x");
  assert.deepEqual([find("#lead-chat-error").textContent, find("#lead-chat-error").hidden], ["Nobody answers there.", false]);
  assert.equal(find("#lead-address").value, "irc://x");
  assert.equal(find("#lead-anyway").hidden, false);
  serve({ "/feeds/": {} });
  find("#lead-anyway").click();
  await settled();
  assert.deepEqual(asked().at(-1), { kind: "irc", paste: "irc://x", anyway: "1" });
  assert.equal(find("#lead-chat-error").hidden, true);
});
