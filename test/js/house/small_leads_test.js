import assert from "node:assert/strict";
import { test } from "node:test";
import { all, eachOnAPage, find, openPage, page, serve, settled } from "../support/page.js";
import { smallLeads } from "../../../assets/js/house/small_leads.js";

eachOnAPage();

const WAY = `<details class="small-lead" data-lead="voices" hidden><summary><b></b><span class="figure"></span></summary><ol></ol><button data-over hidden>Done</button></details>`;
const step = (key, state, to = null) => ({ key, title: `Title ${key}`, words: `<b>${key}</b>`, state, to });
const begin = () => openPage({ html: `${WAY}<div id="messages"></div>` });
const row = (at) => all(".small-lead li")[at];

test("each step says how it stands, and where it is done", () => {
  begin();
  const steps = [step("room", "done"), step("on", "now", "/stage"), step("talked", "later")];
  smallLeads({ voices: { title: "Voices on the picture", steps } });
  assert.deepEqual(
    [find(".small-lead").hidden, find("b").textContent, find(".figure").textContent],
    [false, "Voices on the picture", "1 of 3"],
  );
  assert.deepEqual(
    all(".small-lead li").map(({ dataset }) => dataset.state),
    ["done", "now", "later"],
  );
  assert.equal(row(1).querySelector("a").getAttribute("href"), "/stage");
  assert.equal(row(2).querySelector("a"), null);
  assert.equal(row(0).querySelector(".said").textContent, "<b>room</b>");
  assert.equal(find("[data-over]").hidden, true);
});

test("what is told again leaves it as it stands, and one that is told no more goes", () => {
  begin();
  const leads = () => ({ voices: { title: "Voices", steps: [step("room", "now")] } });
  smallLeads(leads());
  const before = row(0);
  smallLeads(leads());
  assert.equal(row(0), before);
  smallLeads({});
  assert.equal(find(".small-lead").hidden, true);
});

test("once all was seen it is over for good, unless that cannot be kept", async () => {
  begin();
  serve({ "/lead/small/voices/over": { status: 503, error: "Not now." } });
  smallLeads({ voices: { title: "Voices", steps: [step("room", "done")] } });
  find("[data-over]").click();
  await settled();
  assert.ok(find(".small-lead"));
  serve({ "/lead/small/voices/over": { done: true } });
  find("[data-over]").click();
  await settled();
  assert.equal(find(".small-lead"), null);
  assert.equal(page.asked.filter(([path]) => path === "/lead/small/voices/over").length, 2);
});
