import { follow } from "../house/desk.js";
import { keys } from "../house/keys.js";
import { say } from "../house/messages.js";
import { attempt, send } from "../house/send.js";
import { markOf } from "../link/marks.js";

// What was done is told by the page that comes after.
const ERASED = "erased";

for (const mark of document.querySelectorAll("[data-mark]")) mark.append(markOf(JSON.parse(mark.dataset.mark)));

const keep = document.querySelector("#keep");
let keptFor = keep.elements.days.value;
async function keepFor() {
  const days = keep.elements.days.value;
  // Whoever presses Enter has changed it as well.
  if (days === keptFor) return;
  keptFor = days;
  if (await attempt(() => send("/log/keep", { days }))) say(`The log is kept for ${days} days.`);
  else keptFor = null;
}
keep.addEventListener("submit", (event) => {
  event.preventDefault();
  keepFor();
});
keep.elements.days.addEventListener("change", keepFor);

for (const form of document.querySelectorAll(".log-writer"))
  form.addEventListener("submit", async (event) => {
    event.preventDefault();
    const { feed, login } = form.dataset;
    const answer = await attempt(() => send("/log/erase", { feed, login, typed: form.elements.typed.value }));
    if (!answer) return;
    sessionStorage.setItem(ERASED, answer.lines === 1 ? "1 entry of theirs is erased." : `${answer.lines} entries of theirs are erased.`);
    location.assign("/log/");
  });
const erased = sessionStorage.getItem(ERASED);
if (erased) say(erased);
sessionStorage.removeItem(ERASED);

follow(() => {});
keys({ "/": ["Search", () => document.querySelector("#text").focus()] });
