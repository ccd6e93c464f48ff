// Made-up events in the drafts, as the cue sheet has them.
import { say } from "../house/messages.js";
import { attempt, send } from "../house/send.js";

// What belongs to an event of each kind.
const MORE = {
  renewal: { number: 12 },
  gift: { number: 5 },
  visit: { number: 41 },
  tip: { amount: 5, currency: "EUR" },
  paid: { amount: 300, currency: "sparks" },
  purchase: { amount: 12.5, currency: "EUR" },
  cause: { amount: 10, currency: "EUR" },
};

export function events() {
  const menu = document.querySelector("#event-menu");
  menu.addEventListener("click", async ({ target }) => {
    const kind = target.closest("[data-event]")?.dataset.event;
    if (!kind) return;
    const told = await attempt(() => send("/dress/cues/try", { kind, name: "kestrel_ann", where: "draft", ...MORE[kind] }));
    if (told) say(told.cue ? `“${told.cue}” plays in the drafts.` : "The cue sheet has nothing for that.");
  });
}
