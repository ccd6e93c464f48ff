// Copies to hand on, and copies taken in: what would change and what is missing is told before anything is done.
import { button, make } from "../house/elements.js";
import { say } from "../house/messages.js";
import { attempt, sendFiles } from "../house/send.js";

const WAYS = {
  stage: [
    ["As another stage", "new"],
    ["In the place of this draft", "here"],
  ],
  look: [["Put it on the chosen piece", "here"]],
  show: [
    ["As more stages", "new"],
    ["With its gate and cues too", "all"],
  ],
};

export class Copies {
  // piece(): the chosen one's id, if one is
  constructor(dialog, here, piece, undo) {
    this.dialog = dialog;
    this.here = here;
    this.piece = piece;
    this.undo = undo;
    this.told = dialog.querySelector("#copy-told");
    this.text = dialog.querySelector("#copy-text");
    this.file = dialog.querySelector("#copy-file");
    this.paste = dialog.querySelector("#copy-paste");
    dialog.querySelector("#copy-what").addEventListener("change", () => this.show());
    this.file.addEventListener("change", () => this.look(this.file.files[0]));
    this.paste.addEventListener("input", () => this.look(null));
    const box = dialog.querySelector("#copy-file-box");
    box.addEventListener("dragover", (event) => event.preventDefault());
    box.addEventListener("drop", (event) => {
      event.preventDefault();
      this.look(event.dataTransfer.files[0]);
    });
  }

  open() {
    this.told.replaceChildren();
    this.paste.value = "";
    this.dialog.querySelector('[value="look"]').disabled = !this.piece();
    this.dialog.showModal();
    this.show();
  }

  address(as) {
    const what = this.dialog.querySelector("#copy-what input:checked").value;
    return this.here(`copy?${new URLSearchParams({ what, as, piece: this.piece() ?? "" })}`);
  }

  async show() {
    this.dialog.querySelector("#copy-json").href = this.address("json");
    this.dialog.querySelector("#copy-zip").href = this.address("zip");
    const address = this.address("json");
    const answer = await fetch(address);
    const text = answer.ok ? await answer.text() : "";
    if (address === this.address("json")) this.text.value = text;
  }

  form(more = {}) {
    const form = new FormData();
    if (this.given) form.append("file", this.given);
    else form.append("text", this.paste.value);
    form.append("piece", this.piece() ?? "");
    for (const [name, value] of Object.entries(more)) form.append(name, value);
    return form;
  }

  async look(file) {
    this.given = file;
    const turn = {};
    this.turn = turn;
    this.told.replaceChildren();
    if (!file && this.paste.value.trim() === "") return;
    const told = await attempt(() => sendFiles(this.here("copy-in/tell"), this.form()));
    // What is told of what was given before is not told of this.
    if (told && turn === this.turn) this.tell(told);
  }

  tell({ kind, holds, missing, changes }) {
    const list = (title, words) =>
      words.length > 0 ? [make("b", "", title), make("ul", "said", ...words.map((one) => make("li", "", one)))] : [];
    const buttons = WAYS[kind].map(([words, into]) => button(words, null, () => this.take(into), "button"));
    this.told.replaceChildren(
      ...list("It holds", holds),
      ...list("Missing", missing),
      ...list(kind === "stage" ? "In the place of this draft it would change" : "It would change", changes),
      make("div", "copy-buttons", ...buttons),
    );
  }

  async take(into) {
    const done = await attempt(() => sendFiles(this.here("copy-in"), this.form({ into })));
    if (!done) return;
    this.dialog.close();
    if (into === "here") say("It is part of the draft now. Viewers still see what they saw.", { undo: this.undo });
    else location.assign("/stage");
  }
}
