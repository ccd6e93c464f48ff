// What is set in a piece while the broadcast goes on: a now line's text, a clock's start and stop. On air at once.
import { button, make } from "../house/elements.js";
import { say } from "../house/messages.js";
import { attempt, get, send } from "../house/send.js";

const RUN = ["length", "stopwatch"];

export class LiveBox {
  constructor(root, here) {
    this.root = root;
    this.here = here;
  }

  show(piece, live) {
    const key = piece && JSON.stringify([piece.id, piece.kind, piece.source, piece.clock]);
    this.root.hidden = !piece || !(piece.kind === "now_line" || (piece.kind === "clock" && RUN.includes(piece.clock)));
    if (this.root.hidden) return;
    if (this.key !== key) {
      this.key = key;
      this.piece = piece;
      this.root.replaceChildren(...(piece.kind === "clock" ? this.clock() : this.nowLine()));
    }
    this.tell(live);
  }

  send(values) {
    return attempt(() => send(this.here(`pieces/${this.piece.id}/live`), values));
  }

  nowLine() {
    if (this.piece.source === "file") return [make("p", "said", "Set by its file, in the folder “now” of Bavard’s data.")];
    if (this.piece.source === "address") return this.byAddress();
    this.text = make("textarea", "textarea");
    this.text.rows = 2;
    this.text.setAttribute("aria-label", "On screen now, a line each");
    this.text.placeholder = "On screen now, a line each";
    const set = button("Set now", "radio-tower", async () => {
      if (await this.send({ text: this.text.value })) say("It stands on the draft and on air.");
    });
    return [make("span", "label", "On screen now, on air at once"), this.text, set];
  }

  byAddress() {
    const input = make("input", "input figure");
    input.readOnly = true;
    input.setAttribute("aria-label", "Address that sets this now line");
    input.value = "covered";
    const copy = button("Copy", "copy", async () => {
      const told = await attempt(() => get(this.here(`pieces/${this.piece.id}/address`)));
      if (!told) return;
      await navigator.clipboard?.writeText(told.address).catch(() => {});
      say("The address is copied. Whoever has it can set this line.");
    });
    return [make("span", "label", "Whoever has its address sets it"), make("div", "live-row", input, copy)];
  }

  clock() {
    const press = (words, drawing, run) => button(words, drawing, () => this.send({ run }));
    this.start = press("Start", "play", "start");
    this.stop = press("Stop", "pause", "stop");
    return [
      make("span", "label", "On air at once"),
      make("div", "live-row", this.start, this.stop, press("Back to the beginning", "undo-2", "back")),
    ];
  }

  tell(live) {
    if (this.root.hidden || !live) return;
    const running = Boolean(live.running[this.piece.id]);
    if (this.piece.kind === "clock") {
      this.start.hidden = running;
      this.stop.hidden = !running;
    } else if (this.text && document.activeElement !== this.text) this.text.value = live.texts[this.piece.id] ?? "";
  }
}
