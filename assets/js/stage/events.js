// Made-up events in the drafts, as the cue sheet has them.
import { say } from "../house/messages.js";
import { attempt, send } from "../house/send.js";

export function events() {
  document.querySelector("#event-menu").addEventListener("click", async ({ target }) => {
    const kind = target.closest("[data-event]")?.dataset.event;
    if (!kind) return;
    const told = await attempt(() => send("/dress/cues/try", { kind, where: "draft", sample: "1" }));
    if (told) say(told.cue ? `“${told.cue}” plays in the drafts.` : "The cue sheet has nothing for that.");
  });
}
