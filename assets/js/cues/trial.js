// Events that somebody makes up, in the drafts or on the real screens.
import { attempt, send } from "../house/send.js";

const form = () => document.querySelector("#try");
// The cue that is tried, whatever the sheet would choose.
let only = null;

// done(): something may play now
export function trial(done, sounds) {
  form().addEventListener("submit", async (event) => {
    event.preventDefault();
    const values = new FormData(form());
    values.set("where", event.submitter?.value ?? "draft");
    if (only) values.set("cue", only);
    only = null;
    const told = await attempt(() => send("/dress/cues/try", values));
    if (!told) return;
    const ties = told.ties.length > 0 ? ` “${told.ties.join("”, “")}” fit as well, and stand behind it.` : "";
    const passed = told.passed.length > 0 ? ` ${told.passed.join("; ")}.` : "";
    document.querySelector("#tried").textContent = `${told.cue ? `Plays “${told.cue}”.` : "Nothing plays for that."}${ties}${passed}`;
    if (values.get("where") === "draft" && !values.get("sound")) sounds(told.cue, values);
    done();
  });
}

// A made-up event that fits a cue, as Ruby worked it out: for that cue alone.
export function trySample(cue, sample) {
  only = cue;
  const { elements } = form();
  for (const name of ["kind", "name", "amount", "currency", "number", "message"]) elements[name].value = sample[name] ?? "";
  form().requestSubmit(form().querySelector("[value=draft]"));
}
