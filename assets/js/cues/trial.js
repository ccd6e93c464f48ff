// Events that somebody makes up, in the drafts or on the real screens.
import { attempt, send } from "../house/send.js";

const form = document.querySelector("#try");

// done(): something may play now
export function trial(done, sounds) {
  form.addEventListener("submit", async (event) => {
    event.preventDefault();
    const values = new FormData(form);
    values.set("where", event.submitter?.value ?? "draft");
    const told = await attempt(() => send("/dress/cues/try", values));
    if (!told) return;
    const ties = told.ties.length > 0 ? ` “${told.ties.join("”, “")}” fit as well, and stand behind it.` : "";
    const passed = told.passed.length > 0 ? ` ${told.passed.join("; ")}.` : "";
    document.querySelector("#tried").textContent = `${told.cue ? `Plays “${told.cue}”.` : "Nothing plays for that."}${ties}${passed}`;
    if (values.get("where") === "draft" && !values.get("sound")) sounds(told.cue);
    done();
  });
}

// As an event that fits the cue.
export function tryCue(cue) {
  const set = (name, value) => {
    form.elements[name].value = value;
  };
  set("kind", cue.kind);
  set("name", cue.people.split("\n")[0].trim() || form.elements.name.value);
  if (cue.amount_from || cue.amount_to) set("amount", cue.amount_from || cue.amount_to);
  else if (["tip", "paid"].includes(cue.kind) && !form.elements.amount.value) set("amount", 5);
  if (cue.currency) set("currency", cue.currency);
  const number = cue.months_from || cue.months_to || cue.number_from || cue.number_to;
  if (number) set("number", number);
  form.requestSubmit(form.querySelector("[value=draft]"));
}
