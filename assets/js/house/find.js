// Find: whatever there is, by any of the words that people use for it; and whatever has a key on this page.
import { make } from "./elements.js";
import { get, Refused } from "./send.js";

const WAIT_MS = 120;
const KINDS = {
  station: "station",
  room: "room",
  part: "part",
  piece: "piece",
  setting: "setting",
  cue: "cue",
  rule: "rule",
  person: "person",
  line: "log",
  key: "key",
};
const plain = (text) =>
  text
    .normalize("NFD")
    .replace(/\p{Mn}/gu, "")
    .toLowerCase();

// What has a key, by its words.
export const byKey = (table, words) => {
  const wanted = plain(words).split(/\s+/).filter(Boolean);
  return Object.entries(table)
    .filter(([, [told]]) => wanted.length > 0 && wanted.every((one) => plain(told).includes(one)))
    .map(([key, [label, act]]) => ({ kind: "key", label, where: key, act }));
};

export class Find {
  constructor(sheet, table) {
    this.sheet = sheet;
    this.table = table;
    this.input = sheet.querySelector("#find-words");
    this.list = sheet.querySelector("#find-list");
    this.said = sheet.querySelector("#find-said");
    this.asked = 0;
    this.input.addEventListener("input", () => {
      clearTimeout(this.waits);
      this.waits = setTimeout(() => this.look(), WAIT_MS);
    });
    this.input.addEventListener("keydown", (event) => this.key(event));
    sheet.addEventListener("submit", (event) => {
      event.preventDefault();
      this.go(this.found?.[this.at]);
    });
  }

  open() {
    this.sheet.showModal();
    this.input.select();
    this.input.focus();
  }

  async look() {
    const words = this.input.value.trim();
    this.asked += 1;
    const { asked } = this;
    if (!words) return this.show([]);
    const stage = location.pathname.match(/^\/stage\/(\d+)/)?.[1] ?? "";
    try {
      const { found } = await get(`/find?${new URLSearchParams({ q: words, stage })}`);
      if (asked === this.asked) this.show([...byKey(this.table, words), ...found]);
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      this.said.textContent = error.message;
    }
  }

  show(found) {
    this.found = found;
    this.said.textContent = found.length > 0 || !this.input.value.trim() ? "" : "Nothing is called that.";
    this.list.replaceChildren(...found.map((one, at) => this.row(one, at)));
    this.choose(0);
  }

  row({ kind, label, where }, at) {
    const name = make("bdi", "find-label", label);
    const row = make("li", "", name, where ? make("span", "said find-where", where) : null, make("span", "chip", KINDS[kind]));
    row.id = `find-${at}`;
    row.setAttribute("role", "option");
    row.addEventListener("click", () => this.go(this.found[at]));
    return row;
  }

  choose(at) {
    const rows = [...this.list.children];
    this.at = Math.max(0, Math.min(at, rows.length - 1));
    for (const [index, row] of rows.entries()) row.setAttribute("aria-selected", index === this.at);
    this.input.setAttribute("aria-activedescendant", rows[this.at]?.id ?? "");
    rows[this.at]?.scrollIntoView?.({ block: "nearest" });
  }

  key(event) {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (!by) return;
    event.preventDefault();
    this.choose(this.at + by);
  }

  // On the same page the address alone is another one.
  go(one) {
    if (!one) return;
    this.sheet.close();
    if (one.act) return one.act();
    const [path] = one.at.split("#");
    location.assign(one.at);
    if (path === location.pathname) location.reload();
  }
}
