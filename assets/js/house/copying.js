// Something is put where it can be pasted from.
import { make } from "./elements.js";
import { say } from "./messages.js";

export async function copy(text, what) {
  try {
    await navigator.clipboard.writeText(text);
  } catch {
    copyTheOldWay(text);
  }
  say(`${what} is copied.`);
}

// Where the browser gives no clipboard, as on a plain http address of another computer.
function copyTheOldWay(text) {
  const before = document.activeElement;
  const area = make("textarea");
  area.value = text;
  document.body.append(area);
  area.select();
  document.execCommand("copy");
  area.remove();
  before?.focus({ preventScroll: true });
}
