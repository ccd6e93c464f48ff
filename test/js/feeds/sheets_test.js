import assert from "node:assert/strict";
import { before, beforeEach, test } from "node:test";
import { all, called, find, openPage, page, pressable, said, serve, settled } from "../support/page.js";

let sheets;
const submit = async (form) => {
  form.dispatchEvent(new globalThis.Event("submit", { bubbles: true, cancelable: true }));
  await settled();
};
// Ticked as by a press.
const tick = (box, checked) => {
  box.checked = checked;
  box.dispatchEvent(new globalThis.Event("change", { bubbles: true }));
};

before(async () => {
  openPage({
    html: `<div id="messages"></div><div id="here"></div>
      <dialog id="mapping"><p id="mapping-about"></p><form id="mapping-form"><div id="mapping-fields"></div><p id="mapping-error"></p></form><button id="mapping-close"></button></dialog>
      <dialog id="room-sheet"><form id="room-form"><div id="room-list"></div><select name="follow"></select><div class="read-text"><select name="written"></select></div></form><button id="room-close"></button></dialog>
      <dialog id="inbox"><input id="inbox-expects"><button id="inbox-expects-do"></button><p id="inbox-error"></p><input id="inbox-address" readonly><input id="inbox-secret" readonly><textarea id="inbox-curl"></textarea><button id="inbox-show"></button>
        <button data-copy="inbox-secret" data-what="The key">Copy</button></dialog>`,
  });
  globalThis.FormData = page.window.FormData;
  const modules = await Promise.all(["mapping", "address", "rooms", "inbox"].map((name) => import(`../../../assets/js/feeds/${name}.js`)));
  sheets = Object.assign({}, ...modules);
});
beforeEach(() => {
  page.asked.length = 0;
  for (const dialog of all("dialog")) dialog.close();
  find("#messages").replaceChildren();
});

const MAPPING = {
  name: "Sluice",
  address: "irc.sluice.example",
  entries: [
    { entry: "name", label: "Name", keys: "display-name" },
    { entry: "amount", label: "Amount", keys: "+tip", danger: "make up a tip of a million", anybody: false },
    { entry: "role", label: "Role", keys: "+role", danger: "pass for a moderator", anybody: true },
  ],
};

test("whom to believe is asked where somebody could lie, and the danger is told where anybody is believed", async () => {
  serve({ "/feeds/4/mapping": (given) => (given ? {} : MAPPING) });
  await sheets.openMapping(4);
  assert.match(find("#mapping-about").textContent, /^Sluice, irc\.sluice\.example/);
  assert.deepEqual(
    all(".believe-danger").map((told) => [told.textContent, told.hidden]),
    [
      ["Anybody can make up a tip of a million.", true],
      ["Anybody can pass for a moderator.", false],
    ],
  );
  tick(called("Amount: anybody may say it"), true);
  tick(called("Role: anybody may say it"), false);
  assert.deepEqual(
    all(".believe-danger").map((told) => told.hidden),
    [false, true],
  );
  find("#map-name").value = "nick";
  await submit(find("#mapping-form"));
  assert.deepEqual(page.asked.at(-1)[1], { name: "nick", amount: "+tip", role: "+role", anybody: "amount" });
  assert.deepEqual([find("#mapping").open, said()], [false, ["The tags are read this way from now on."]]);
});

test("a tag that is refused is said in the sheet, and its field has the caret", async () => {
  serve({ "/feeds/4/mapping": (given) => (given ? { error: "A tag has no spaces.", field: "amount" } : MAPPING) });
  await sheets.openMapping(4);
  await submit(find("#mapping-form"));
  assert.deepEqual([find("#mapping-error").textContent, find("#mapping").open], ["A tag has no spaces.", true]);
  assert.equal(page.document.activeElement, find("#map-amount"));
  await sheets.openMapping(4);
  assert.equal(find("#mapping-error").hidden, true);
});

test("a feed that is gone meanwhile opens no sheet", async () => {
  serve({ "/feeds": { error: "There is no such feed." } });
  await sheets.openMapping(4);
  await sheets.openInbox(4);
  assert.deepEqual([find("#mapping").open, find("#inbox").open, said().length], [false, false, 2]);
});

const ASKS = [
  { field: "lantern.channel", label: "Channel", example: "reedmere", each: false, value: "reedmere" },
  { field: "lantern.number", label: "Today’s number", each: true, value: "7741-0392" },
];

function address(wanted = true) {
  const left = [];
  const form = new sheets.AddressForm({ id: 6, name: "Lantern", asks: ASKS }, () => left.push(6));
  form.tell({ reason: "This broadcast is over." }, wanted);
  find("#here").replaceChildren(form.element);
  return left;
}

test("where a feed reads is sent as typed, and a refusal stands beside it", async () => {
  const left = address();
  const [channel, number] = ["channel", "number"].map((name) => find(`[name="lantern.${name}"]`));
  assert.deepEqual([channel.value, number.value, channel.placeholder], ["reedmere", "", "reedmere"]);
  assert.equal(pressable("Leave it as it was").hidden, true);
  number.value = "7741-0393";
  serve({ "/feeds/6/address": { error: "That broadcast is over.", field: "lantern.number" } });
  await submit(find(".address"));
  const sent = ["/feeds/6/address", { "lantern.channel": "reedmere", "lantern.number": "7741-0393" }];
  assert.deepEqual([page.asked, find(".error-line").textContent], [[sent], "That broadcast is over."]);
  assert.equal(pressable("Keep it anyway").hidden, true);
  serve({ "/feeds/6/address": {} });
  await submit(find(".address"));
  assert.deepEqual([find(".error-line").textContent, left], ["", []]);
});

test("what was tried in vain can be kept anyway, and what somebody opened closes", async () => {
  const left = address(false);
  serve({ "/feeds/6/address": { error: "Nothing answers.", anyway: true } });
  await submit(find(".address"));
  assert.deepEqual([pressable("Keep it anyway").hidden, left], [false, []]);
  serve({ "/feeds/6/address": {} });
  pressable("Keep it anyway").click();
  await settled();
  assert.deepEqual([page.asked.at(-1)[1].anyway, left], ["1", [6]]);
});

const ROOMS = [
  {
    id: "hides",
    name: "The hides",
    people: [
      { id: "t", name: "Teo" },
      { id: "b", name: "<b>Bo" },
    ],
  },
  { id: "weir", name: "The weir", people: [] },
];
const listed = () => all("#room-list .room").map((room) => [room.textContent, room.querySelector("input").checked]);

test("rooms say who is in them, the first is chosen, and anybody there can be followed", async () => {
  serve({ "/feeds/rooms": { rooms: ROOMS, texts: [{ id: "pins", name: "Pinboard" }] } });
  sheets.openRooms({ id: 9, platform: "croft room" });
  assert.match(find("#room-list").textContent, /Asking which rooms/);
  await settled();
  assert.deepEqual(listed(), [
    ["The hides2 there: Teo, <b>Bo", true],
    ["The weirnobody is there", false],
  ]);
  assert.deepEqual(
    all("#room-form option").map((one) => one.textContent),
    ["stay in this room", "go along with Teo", "go along with <b>Bo", "in this room", "in Pinboard"],
  );
  assert.equal(find(".read-text").hidden, false);
  assert.equal(page.asked[0][0], "/feeds/rooms?platform=croft+room");
});

test("another room is chosen from the one it is in, and taken once the server took it", async () => {
  serve({ "/feeds/rooms": { rooms: ROOMS, texts: [{ id: "pins", name: "Pinboard" }] }, "/feeds/9/room": { error: "That room is full." } });
  sheets.openRooms({ id: 9, platform: "croft", address: { room: "weir", follow: "b", written: "pins" } });
  await settled();
  assert.deepEqual([listed().map(([, checked]) => checked), find("[name=follow]").value], [[false, true], "b"]);
  await submit(find("#room-form"));
  assert.deepEqual(
    [page.asked.at(-1), find("#room-sheet").open],
    [["/feeds/9/room", { room: "weir", follow: "b", written: "pins" }], true],
  );
  serve({ "/feeds/9/room": {} });
  await submit(find("#room-form"));
  assert.equal(find("#room-sheet").open, false);
});

test("rooms that come after those of another feed were asked for are not listed", async () => {
  let late;
  serve({
    "/feeds/rooms?platform=slow": new Promise((answer) => {
      late = answer;
    }),
    "/feeds/rooms?platform=croft": { rooms: [ROOMS[1]], texts: [] },
  });
  sheets.openRooms({ id: 8, platform: "slow" });
  sheets.openRooms({ id: 9, platform: "croft" });
  await settled();
  late({ rooms: ROOMS, texts: [] });
  await settled();
  assert.equal(listed().length, 1);
});

test("no room and no answer are both said where the rooms would be", async () => {
  const places = { root: find("#room-list"), follow: find("[name=follow]"), written: find("[name=written]") };
  serve({ "/feeds/rooms": { rooms: [], texts: [] } });
  await sheets.listRooms(places, "croft");
  assert.match(find("#room-list").textContent, /There is no room yet/);
  serve({ "/feeds/rooms": { error: "The service does not answer." } });
  await sheets.listRooms(places, "croft");
  assert.equal(find("#room-list").textContent, "The service does not answer.");
});

test("an address and its key stay covered on the screen, and are copied all the same", async () => {
  const copied = [];
  Object.defineProperty(globalThis, "navigator", {
    configurable: true,
    value: { clipboard: { writeText: async (text) => copied.push(text) } },
  });
  serve({ "/feeds/4/inbox": { address: "https://x.example/in/abcdef", secret: "s3cret" } });
  await sheets.openInbox(4);
  const shown = () =>
    all("#inbox input, #inbox textarea")
      .map((field) => field.value)
      .join("\n");
  assert.ok(!/abcdef|s3cret/.test(shown()));
  assert.match(shown(), /https:\/\/x\.example\/in\/•+/);
  find("[data-copy]").click();
  await settled();
  assert.deepEqual([copied, said()], [["s3cret"], ["The key is copied."]]);
  find("#inbox-show").click();
  assert.match(shown(), /in\/abcdef\ns3cret\n.*-hmac 's3cret'/s);
  assert.equal(find("#inbox-show").getAttribute("aria-pressed"), "true");
  await sheets.openInbox(4);
  assert.ok(!/s3cret/.test(shown()));
});
