// How this window is set: kept in this browser.
const NAME = "bavard.prompter.";

export function kept(name) {
  try {
    return JSON.parse(localStorage.getItem(NAME + name)) ?? {};
  } catch {
    return {};
  }
}

export function keep(name, value) {
  try {
    localStorage.setItem(NAME + name, JSON.stringify(value));
  } catch {
    // A panel without a memory of its own: it counts until it is closed.
  }
}
