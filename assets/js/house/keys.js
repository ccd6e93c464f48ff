// Keys of a screen: one table that both acts and explains itself under "?".
import { Find } from "./find.js";

const typing = (target) => target.matches?.("input, textarea, select, [contenteditable]");

// The rooms of this station, from left to right.
const rooms = () =>
  [...document.querySelectorAll(".rooms a")].map((link, at) => [String(at + 1), [link.firstChild.textContent, () => link.click()]]);

// One key, everywhere that something can be looked for.
function finding(table) {
  const sheet = document.querySelector("#find-anything");
  if (!sheet) return [];
  const find = new Find(sheet, table);
  document.querySelector("#open-find")?.addEventListener("click", () => find.open());
  return [["f", ["Find anything", () => find.open()]]];
}

// A key does one thing: where a table has one of those that are the same everywhere, it is told twice and does what it does everywhere.
export function keys(...tables) {
  const list = document.querySelector("#keys-list");
  const sheet = document.querySelector("#keys");
  // What is chosen then stands at the end: whoever opens it begins at the top.
  const show = () => {
    sheet.showModal();
    sheet.scrollTop = 0;
  };
  const table = tables.flatMap((one) => Object.entries(one));
  const all = [["?", ["Show these keys", show]], ...finding(Object.fromEntries(table)), ...rooms(), ...table];
  for (const [key, [words]] of all) {
    const name = document.createElement("kbd");
    name.textContent = key;
    const term = document.createElement("dt");
    term.append(name);
    const meaning = document.createElement("dd");
    meaning.textContent = words;
    list.append(term, meaning);
  }
  document.querySelector("#show-keys").addEventListener("click", show);
  document.addEventListener("keydown", (event) => {
    if (typing(event.target) || document.querySelector("dialog[open]")) return;
    const name = [event.ctrlKey || event.metaKey ? "Ctrl " : "", event.shiftKey && event.key.length > 1 ? "Shift " : "", event.key].join(
      "",
    );
    const act = all.find(([key]) => key === name)?.[1][1];
    if (!act) return;
    event.preventDefault();
    act(event);
  });
}
