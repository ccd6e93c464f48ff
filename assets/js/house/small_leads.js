// The ways to a second platform, voices, alerts and somebody who helps, each where it is done: closed until somebody opens it.
import { icon, make } from "./elements.js";
import { attempt, send } from "./send.js";

function stepRow({ title, words, state, to }, index) {
  const mark = make("span", "lead-mark", state === "done" ? icon("check") : make("span", "", String(index + 1)));
  mark.setAttribute("aria-hidden", "true");
  const row = make("li", "", mark, make("b", "", title), make("span", "said", words));
  row.dataset.state = state;
  if (state === "done") row.append(make("span", "is-sr-only", "done"));
  if (to) {
    const link = make("a", "plain-link", "To the Stage");
    link.href = to;
    row.append(link);
  }
  return row;
}

function show(element, lead) {
  element.hidden = !lead;
  const said = JSON.stringify(lead ?? null);
  if (element.dataset.told === said) return;
  element.dataset.told = said;
  if (!lead) return;
  const done = lead.steps.filter(({ state }) => state === "done").length;
  element.querySelector("b").textContent = lead.title;
  element.querySelector(".figure").textContent = `${done} of ${lead.steps.length}`;
  element.querySelector("ol").replaceChildren(...lead.steps.map(stepRow));
  element.querySelector("[data-over]").hidden = done < lead.steps.length;
}

async function over(element) {
  if (await attempt(() => send(`/lead/small/${element.dataset.lead}/over`))) element.remove();
}

// leads: what the show tells, by their keys
export function smallLeads(leads = {}) {
  for (const element of document.querySelectorAll(".small-lead[data-lead]")) {
    if (!element.dataset.heard) element.querySelector("[data-over]").addEventListener("click", () => over(element));
    element.dataset.heard = "1";
    show(element, leads[element.dataset.lead]);
  }
}
