// Pictures and packs that are dropped or chosen: sent, followed while they are made anew, and told of.
import { dropping } from "../house/dropping.js";
import { button, make } from "../house/elements.js";
import { say } from "../house/messages.js";
import { attempt, get, sendFiles, send } from "../house/send.js";

const EVERY_MS = 400;

function bar(words) {
  const progress = make("progress");
  progress.max = 1;
  const text = make("span", "", words);
  const line = make("div", "message-line import-line", text, progress);
  document.querySelector("#messages").append(line);
  return { line, progress, text };
}

function report({ words, refused }) {
  if (refused.length === 0) return say(words);
  const list = make("ul", "import-report", ...refused.map(([name, why]) => make("li", "", make("b", "", name), `: ${why}`)));
  const details = make("details", "", make("summary", "", "Which, and why"), list);
  const close = button("Close", "x", () => line.remove(), "button plain");
  const line = make("div", "message-line import-line", make("span", "", `${words}.`), details, close);
  document.querySelector("#messages").append(line);
}

export async function followImport(id, changed) {
  const { line, progress, text } = bar("Making the pictures anew …");
  const stop = button("Stop", "x", () => attempt(() => send(`/dress/imports/${id}/stop`)), "button plain");
  line.append(stop);
  let now;
  do {
    await new Promise((next) => setTimeout(next, EVERY_MS));
    now = await attempt(() => get(`/dress/imports/${id}`));
    if (now?.total) {
      progress.max = now.total;
      progress.value = now.done;
      text.textContent = `${now.done} of ${now.total}`;
    }
  } while (now?.state === "running");
  line.remove();
  if (!now) return;
  if (now.state === "done") report(now);
  else if (now.refused.length > 0) report(now);
  else say(now.words, { bad: now.state === "refused" });
  changed();
}

// shelf: the id of one, or nothing for a new one.
export async function takeFiles(files, shelf, changed) {
  const form = new FormData();
  for (const file of files) form.append("files[]", file);
  if (shelf) form.append("shelf", shelf);
  const begun = await attempt(() => sendFiles("/dress/shelves/upload", form));
  if (begun) await followImport(begun.import, changed);
}

export function drops(changed) {
  dropping((files, shelf) => takeFiles(files, shelf ?? null, changed), {
    opener: document.querySelector("#add-open"),
    input: document.querySelector("#add-files"),
  });
}
