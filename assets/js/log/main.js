import { follow } from "../house/desk.js";
import { keys } from "../house/keys.js";
import { say } from "../house/messages.js";
import { attempt, send } from "../house/send.js";
import { markOf } from "../link/marks.js";

for (const mark of document.querySelectorAll("[data-mark]")) mark.append(markOf(JSON.parse(mark.dataset.mark)));

const keep = document.querySelector("#keep");
async function keepFor() {
  const days = keep.elements.days.value;
  if (await attempt(() => send("/log/keep", { days }))) say(`The log is kept for ${days} days.`);
}
keep.addEventListener("submit", (event) => {
  event.preventDefault();
  keepFor();
});
keep.elements.days.addEventListener("change", keepFor);

follow(() => {});
keys({ "/": ["Search", () => document.querySelector("#text").focus()] });
