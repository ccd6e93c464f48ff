// What goes where it was drawn: a small menu beside the box, by mouse or by key.
import { icon, make } from "../house/elements.js";

export class DrawMenu {
  // add(kind, box)
  constructor(root, kinds, letters, add) {
    this.root = root;
    this.add = add;
    this.letters = letters;
    this.buttons = Object.entries(kinds).map(([kind, { label, icon: drawing }]) => {
      const button = make("button", "", icon(drawing), label, make("kbd", "", letters[kind]));
      button.type = "button";
      button.setAttribute("role", "menuitem");
      button.addEventListener("click", () => this.choose(kind));
      return button;
    });
    root.append(...this.buttons);
    // In two columns, read one after the other.
    this.rows = Math.ceil(this.buttons.length / 2);
    root.style.setProperty("--rows", this.rows);
    root.addEventListener("keydown", (event) => this.key(event));
    root.addEventListener("focusout", (event) => !root.contains(event.relatedTarget) && this.close());
  }

  // box: in pixels of the stage, where one was drawn; ratio: how large those are drawn
  open(box, ratio, room) {
    this.box = box;
    this.root.hidden = false;
    const [x, y] = box ? [box.x * ratio, box.y * ratio] : [(room.width - this.root.offsetWidth) / 2, room.height * 0.1];
    const left = Math.min(x, room.width - this.root.offsetWidth - 8);
    const top = Math.min(y, room.height - this.root.offsetHeight - 8);
    Object.assign(this.root.style, { left: `${Math.max(8, left)}px`, top: `${Math.max(8, top)}px` });
    this.buttons[0].focus();
  }

  close() {
    this.root.hidden = true;
  }

  choose(kind) {
    const { box } = this;
    this.close();
    this.add(kind, box);
  }

  key(event) {
    const at = this.buttons.indexOf(document.activeElement);
    const step = { ArrowDown: 1, ArrowUp: -1, ArrowRight: this.rows, ArrowLeft: -this.rows }[event.key];
    if (step) this.buttons[(at + step + this.buttons.length) % this.buttons.length].focus();
    else if (event.key === "Escape") this.close();
    else {
      const [kind] = Object.entries(this.letters).find(([, letter]) => letter === event.key) ?? [];
      if (!kind) return;
      this.choose(kind);
    }
    event.preventDefault();
    event.stopPropagation();
  }
}
