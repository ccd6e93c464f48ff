// Shelves of emotes as pictures: in their order, on or off, and on which feeds.
import { button, icon, make } from "../house/elements.js";
import { say } from "../house/messages.js";
import { attempt, send } from "../house/send.js";
import { markOf } from "../link/marks.js";
import { takeFiles } from "./imports.js";
import { emoteButton } from "./emote.js";
import { addByAddress, addShelf, addShelfFrom, readAgain, rename } from "./shelf_forms.js";

export class Shelves {
  constructor(changed) {
    this.changed = changed;
    this.root = document.querySelector("#shelves");
    document.querySelector("#shelf-add").addEventListener("click", () => addShelf(this.changed));
    document.querySelector("#shelf-from").addEventListener("click", () => addShelfFrom(this.changed));
    const unused = document.querySelector("#unused");
    unused.addEventListener("click", () => {
      const pressed = unused.getAttribute("aria-pressed") !== "true";
      unused.setAttribute("aria-pressed", pressed);
      this.root.classList.toggle("only-unused", pressed);
    });
  }

  show({ shelves, feeds }) {
    this.shelves = shelves;
    if (shelves.length === 0) {
      const words = make(
        "p",
        "said",
        "Emotes stand here as pictures: drop some, or a pack of them, anywhere on this page. Their names become their codes.",
      );
      this.root.replaceChildren(make("div", "shelf-empty", make("h2", "", "No shelf yet"), words));
      return;
    }
    this.root.replaceChildren(...shelves.map((shelf, index) => this.shelf(shelf, feeds, index)));
  }

  shelf(shelf, feeds, index) {
    const grip = this.grip(shelf, index);
    const name = make("h2", "", shelf.name);
    const about = make("span", "said", this.about(shelf, index));
    const on = make("input");
    Object.assign(on, { type: "checkbox", checked: shelf.on });
    on.setAttribute("role", "switch");
    on.setAttribute("aria-label", `${shelf.name} is worn`);
    on.addEventListener("change", () => this.keep(shelf, { on: on.checked ? "1" : "0" }));
    const head = make(
      "div",
      "shelf-head",
      grip,
      name,
      about,
      make("span", "shelf-feeds push", ...this.feeds(shelf, feeds)),
      make("label", "switch", on),
      this.menu(shelf, index),
    );
    const pictures = make(
      "div",
      "emotes",
      ...shelf.emotes.map((emote) => emoteButton(emote, shelf, this.changed)),
      shelf.feed ? null : this.place(shelf),
    );
    const element = make("section", `shelf${shelf.on ? "" : " off"}`, head, pictures);
    element.setAttribute("aria-label", shelf.name);
    element.dataset.shelf = shelf.id;
    this.takeDrops(element, shelf);
    return element;
  }

  about(shelf, index) {
    if (shelf.feed) return `${shelf.count}, sent with each line`;
    const parts = [shelf.said ?? String(shelf.count)];
    if (index === 0 && this.shelves.length > 1) parts.push("seen first");
    if (shelf.unused > 0 && shelf.count > 0) parts.push(`${shelf.unused} unused`);
    return parts.join(", ");
  }

  // Dragged with the mouse, or moved with the arrow keys.
  grip(shelf, index) {
    const grip = button("", "grip-vertical", () => {}, "grip");
    grip.setAttribute("aria-label", `Move ${shelf.name}: arrow up or down`);
    grip.draggable = true;
    grip.addEventListener("dragstart", (event) => event.dataTransfer.setData("text/bavard-shelf", shelf.id));
    grip.addEventListener("keydown", (event) => {
      const step = { ArrowUp: -1, ArrowDown: 1 }[event.key];
      if (!step) return;
      event.preventDefault();
      this.move(shelf.id, index + step);
    });
    return grip;
  }

  takeDrops(element, shelf) {
    element.addEventListener("dragover", (event) => event.dataTransfer.types.includes("text/bavard-shelf") && event.preventDefault());
    element.addEventListener("drop", (event) => {
      const moved = Number(event.dataTransfer.getData("text/bavard-shelf"));
      if (moved) {
        event.preventDefault();
        event.stopPropagation();
        this.move(
          moved,
          this.shelves.findIndex((one) => one.id === shelf.id),
        );
      } else if (event.dataTransfer.files.length > 0 && !shelf.feed) {
        event.preventDefault();
        event.stopPropagation();
        document.querySelector("#drop-here").hidden = true;
        takeFiles(event.dataTransfer.files, shelf.id, this.changed);
      }
    });
  }

  async move(id, to) {
    const ids = this.shelves.map((shelf) => shelf.id).filter((one) => one !== id);
    ids.splice(Math.max(0, to), 0, id);
    await this.do("/dress/shelves/order", { ids: ids.join() });
    document.querySelector(`[data-shelf="${id}"] .grip`)?.focus();
  }

  feeds(shelf, feeds) {
    if (shelf.feed) return feeds.filter((feed) => feed.id === shelf.feed).map((feed) => markOf(feed.mark));
    return feeds.map((feed) => {
      const off = shelf.off_feeds.includes(feed.id);
      const toggle = make("button", "feed-toggle", markOf(feed.mark));
      toggle.type = "button";
      toggle.setAttribute("aria-pressed", !off);
      toggle.setAttribute("aria-label", `${shelf.name} on ${feed.name}`);
      toggle.title = off ? `Not worn on ${feed.name}` : `Worn on ${feed.name}`;
      const next = off ? shelf.off_feeds.filter((id) => id !== feed.id) : [...shelf.off_feeds, feed.id];
      toggle.addEventListener("click", () => this.keep(shelf, { off_feeds: next.join() }));
      return toggle;
    });
  }

  menu(shelf, index) {
    const items = [button("Rename", "pencil", () => rename(shelf, this.changed), "")];
    if (!shelf.feed) items.push(button("A picture by its address", "link", () => addByAddress(shelf, this.changed), ""));
    if (shelf.address) items.push(button("Read it again", "refresh-cw", () => readAgain(shelf, this.changed), ""));
    if (index > 0) items.push(button("Up", "arrow-up", () => this.move(shelf.id, index - 1), ""));
    if (index < this.shelves.length - 1) items.push(button("Down", "arrow-down", () => this.move(shelf.id, index + 1), ""));
    items.push(button("Take it away", "trash-2", () => this.remove(shelf), ""));
    const summary = make("summary", "button plain", icon("ellipsis"));
    summary.setAttribute("aria-label", `More about ${shelf.name}`);
    const menu = make("details", "menu shelf-menu", summary, make("div", "menu-sheet", ...items));
    menu.addEventListener("click", ({ target }) => target.closest(".menu-sheet") && menu.removeAttribute("open"));
    return menu;
  }

  place(shelf) {
    const place = button(
      "",
      "plus",
      () => {
        const files = document.querySelector("#add-files");
        files.dataset.shelf = shelf.id;
        files.click();
      },
      "emote-place",
    );
    place.setAttribute("aria-label", `Add pictures to ${shelf.name}`);
    return place;
  }

  async remove(shelf) {
    if (await this.keep(shelf, { removed: "1" })) say(`${shelf.name} is taken away.`, { undo: () => this.keep(shelf, { removed: "0" }) });
  }

  keep(shelf, values) {
    return this.do(`/dress/shelves/${shelf.id}`, values);
  }

  async do(path, values) {
    const done = await attempt(() => send(path, values));
    await this.changed();
    return done;
  }
}
