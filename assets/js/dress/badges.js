// Drawers of badges: a row for each kind, a place for each feed that sends it.
import { button, make } from "../house/elements.js";
import { attempt, send, sendFiles } from "../house/send.js";
import { badgeOf } from "../link/dress.js";
import { markOf } from "../link/marks.js";
import { pictureChoice } from "./choice.js";
import { ask, closeSheet } from "./sheet.js";

export class Badges {
  constructor(changed) {
    this.changed = changed;
    this.root = document.querySelector("#badges");
  }

  show({ badges, feeds, shelves }) {
    this.shelves = shelves;
    if (badges.length === 0) {
      this.root.replaceChildren(make("p", "said badges-none", "Kinds of badge appear here by themselves, as soon as somebody wears one."));
      return;
    }
    const seen = feeds.filter((feed) => badges.some((badge) => badge.feeds[feed.id]));
    const head = make(
      "div",
      "badges-row head",
      make("span"),
      ...seen.map((feed) => make("span", "badges-feed", markOf(feed.mark), feed.name)),
    );
    const rows = badges.map((badge) => this.row(badge, seen));
    this.root.replaceChildren(head, ...rows, make("p", "said badges-foot", "Ringed ones are your pictures."));
    this.root.style.setProperty("--feeds", seen.length);
  }

  row(badge, feeds) {
    return make("div", "badges-row", make("span", "", badge.name), ...feeds.map((feed) => this.cell(badge, feed)));
  }

  cell(badge, feed) {
    const cell = badge.feeds[feed.id];
    if (!cell) return make("span", "badges-missing", "none");
    const drawn = badgeOf([badge.kind, "", cell.ours ?? cell.theirs, badge.letter, badge.colour], { height: 24 });
    const open = make("button", "badge-button", drawn);
    open.type = "button";
    open.classList.toggle("ours", Boolean(cell.ours));
    open.classList.toggle("hidden-badge", !cell.shown);
    const state = cell.shown ? (cell.ours ? "your picture" : "shown") : "not shown";
    open.setAttribute("aria-label", `${badge.name} on ${feed.name}: ${state}`);
    open.addEventListener("click", () => this.edit(badge, feed, cell));
    return open;
  }

  edit(badge, feed, cell) {
    const path = `/dress/badges/${feed.id}/${encodeURIComponent(badge.kind)}`;
    const extra = [pictureChoice(this.shelves)];
    if (cell.ours)
      extra.push(
        make(
          "div",
          "wide",
          button("Back to theirs", "undo-2", () => this.back(path), "button"),
        ),
      );
    ask({
      title: `${badge.name} on ${feed.name}`,
      about: "A picture of yours is drawn in the place of the platform’s.",
      button: "Keep it so",
      fields: [
        { name: "shown", label: "Shown", type: "checkbox", checked: cell.shown },
        { name: "file", label: "A picture from this computer", type: "file" },
        { name: "address", label: "Or one at an address", placeholder: "https://reedmere.example/ringer.png" },
      ],
      extra,
      work: async (values) => {
        if (!values.has("shown")) values.set("shown", "0");
        if (values.get("file")?.size === 0) values.delete("file");
        if (!values.get("address")) values.delete("address");
        await sendFiles(path, values);
        this.changed();
      },
    });
  }

  async back(path) {
    closeSheet();
    await attempt(() => send(path, { picture: "theirs" }));
    this.changed();
  }
}
