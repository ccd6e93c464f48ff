import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, eachOnAPage, find } from "../support/page.js";

eachOnAPage({ html: `<p id="lacks"></p>` });

let tellLacks;
beforeEach(async () => {
  ({ tellLacks } = await import("../../../assets/js/feeds/lacks.js"));
});
const feed = (id, lacks) => ({ id, name: `<b>${id}</b>`, platform: "sk ein", lacks, mark: ["circle", "#fff"] });

test("what is missing is said once, with the chats that miss it, and leads there", () => {
  tellLacks(find("#lacks"), [feed(1, "permission"), feed(2, "again"), feed(3, "permission")]);
  assert.deepEqual(
    all(".answer-lacking").map((one) => one.textContent),
    ["Give permission to answer in:<b>1</b><b>3</b>", "The permission ended; give it again for:<b>2</b>"],
  );
  assert.equal(find("a").getAttribute("href"), "/feeds/permission?platform=sk%20ein&feed=1");
});

test("it is drawn anew only where it is otherwise, so that focus stays, and goes where nothing is missing", () => {
  tellLacks(find("#lacks"), [feed(1, "permission")]);
  const link = find("a");
  tellLacks(find("#lacks"), [feed(1, "permission")]);
  assert.equal(find("a"), link);
  tellLacks(find("#lacks"), [feed(1, "again")]);
  assert.notEqual(find("a"), link);
  tellLacks(find("#lacks"), []);
  assert.equal(find("#lacks").hidden, true);
});
