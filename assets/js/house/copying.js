// Something is put where it can be pasted from.
import { make } from "./elements.js";
import { say } from "./messages.js";

export async function copy(text, what) {
  try {
    await navigator.clipboard.writeText(text);
  } catch {
    if (!copyTheOldWay(text))
      return say("This browser lets nothing be copied from here. Allow it beside the address, then try again.", { bad: true });
  }
  say(`${what} is copied.`);
}

// Where the browser gives no clipboard, as on a plain http address of another computer. Beneath an open sheet nothing can be chosen.
function copyTheOldWay(text) {
  const before = document.activeElement;
  const area = make("textarea");
  area.value = text;
  (document.querySelector("dialog[open]") ?? document.body).append(area);
  area.select();
  const done = document.execCommand("copy");
  area.remove();
  before?.focus({ preventScroll: true });
  return done;
}
