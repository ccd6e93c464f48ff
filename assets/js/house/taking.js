// A picture or a film that takes a while to be made anew: how far it is, and a way to stop it.
import { button, make } from "./elements.js";
import { attempt, get, Refused, send } from "./send.js";

const EVERY_MS = 500;

function lineFor(name, stop) {
  const progress = make("progress");
  Object.assign(progress, { max: 100, value: 0 });
  progress.setAttribute("aria-label", `How far “${name}” is`);
  const line = make("div", "message-line import-line", make("span", "", `“${name}” is made anew`), progress, stop);
  document.querySelector("#messages").append(line);
  return { line, progress };
}

// taking: its id; gives what came of it, and throws Refused where nothing did
export async function follow({ taking, name }) {
  const at = `/dress/files/takings/${taking}`;
  const { line, progress } = lineFor(
    name,
    button("Stop", "x", () => attempt(() => send(`${at}/stop`)), "button plain"),
  );
  try {
    for (;;) {
      await new Promise((next) => setTimeout(next, EVERY_MS));
      const { state, share, words, result } = await get(at);
      if (state === "done") return result;
      if (state === "stopped") throw new Refused({ error: `“${name}” was stopped. Nothing was changed.` });
      if (state === "refused") throw new Refused({ error: words });
      progress.value = share;
    }
  } finally {
    line.remove();
  }
}
