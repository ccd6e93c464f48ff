// What is set in a piece while the broadcast goes on: a now line's text, a clock's start and stop, a counter, a challenge, a
// file of captions. On air at once.
import { copy } from "../house/copying.js";
import { button, icon, make } from "../house/elements.js";
import { say } from "../house/messages.js";
import { attempt, get, send, sendFiles } from "../house/send.js";

const RUN = ["length", "stopwatch"];
const KINDS = ["now_line", "clock", "counter", "challenge", "captions"];
// What feeds a piece: where it is set, and how that is called.
const CAST = ["/dress/cast/", "drama", "Who talks here"];
const CUES = ["/dress/cues/", "bell-ring", "What is counted here"];
const FILES = ["/dress/files/", "file-audio", "Your files"];
const FED_BY = {
  chat: ["/feeds", "plug-zap", "What comes in here"],
  voices: CAST,
  portraits: CAST,
  room_card: ["/feeds", "plug-zap", "The voice rooms"],
  alerts: ["/dress/cues/", "bell-ring", "What plays here"],
  flurry: ["/dress", "shapes", "What flies here"],
  goal: CUES,
  challenge: CUES,
  newest: CUES,
  shout_out: ["/dress/fellows/", "handshake", "Who is introduced here"],
  picture: FILES,
  video: FILES,
};

export class LiveBox {
  constructor(root, here) {
    this.root = root;
    this.here = here;
  }

  show(piece, live) {
    const key = piece && JSON.stringify([piece.id, piece.kind, piece.source, piece.clock, piece.kinds]);
    this.runs = KINDS.includes(piece?.kind) && (piece.kind !== "clock" || RUN.includes(piece.clock));
    this.root.hidden = !this.runs && !FED_BY[piece?.kind];
    if (this.root.hidden) return;
    if (this.key !== key) {
      this.key = key;
      this.piece = piece;
      const boxes = {
        clock: this.clock,
        counter: this.counter,
        challenge: this.challenge,
        captions: this.captions,
        now_line: this.nowLine,
      };
      this.root.replaceChildren(...(this.runs ? boxes[piece.kind].call(this) : []), ...this.fedBy());
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
    this.told = "";
    this.text.rows = 2;
    this.text.setAttribute("aria-label", "On screen now, a line each");
    this.text.placeholder = "On screen now, a line each";
    const set = button("Set now", "radio-tower", async () => {
      if (await this.send({ text: this.text.value })) say("It stands on the draft and on air.");
    });
    return [make("span", "label", "On screen now, on air at once"), this.text, set];
  }

  byAddress(title = "Whoever has its address sets it", does = "set this line") {
    const input = make("input", "input figure");
    input.readOnly = true;
    input.setAttribute("aria-label", title);
    input.value = "covered";
    const take = button("Copy", "copy", async () => {
      const told = await attempt(() => get(this.here(`pieces/${this.piece.id}/address`)));
      if (told) copy(told.address, `The address by which somebody can ${does}`);
    });
    return [make("span", "label", title), make("div", "live-row", input, take)];
  }

  counter() {
    const by = (count) => () => this.send({ count });
    return [
      make("span", "label", "On air at once"),
      make("div", "live-row", button("One more", "plus", by(1)), button("One less", null, by(-1)), button("Ten more", "plus", by(10))),
    ];
  }

  challenge() {
    const press = (words, drawing, run) =>
      button(words, drawing, async () => {
        const { piece } = this;
        const undo = () => attempt(() => send(this.here(`pieces/${piece.id}/live`), { run: "undo" }));
        if (await this.send({ run })) say({ begin: "It runs.", end: "It is over.", back: "It waits to begin." }[run], { undo });
      });
    return [
      make("span", "label", "On air at once"),
      make("div", "live-row", press("Begin", "play", "begin"), press("End", "square", "end"), press("Back to before", "undo-2", "back")),
    ];
  }

  // Each leads back to where it was pressed.
  fedBy() {
    const [path, drawing, words] = FED_BY[this.piece.kind] ?? [];
    if (!path) return [];
    const link = make("a", "button", icon(drawing), words);
    const back = `${path}?from=${this.here("").match(/\d+/)?.[0]}.${this.piece.id}`;
    link.href = this.piece.kind === "alerts" ? `${back}#${this.piece.kinds?.[0] ?? ""}` : back;
    return [link];
  }

  captions() {
    if (this.piece.source === "address") return this.byAddress("Whoever has its address says what they show", "say what it shows");
    const input = make("input", "is-sr-only");
    Object.assign(input, { type: "file", accept: ".vtt,.srt,text/vtt" });
    input.setAttribute("aria-label", "File of captions");
    input.addEventListener("change", async () => {
      const values = new FormData();
      values.set("file", input.files[0]);
      if (await attempt(() => sendFiles(this.here(`pieces/${this.piece.id}/live`), values)))
        say("The captions are there. Start them when it begins.");
    });
    return [make("label", "button", "Choose a WebVTT file", input), ...this.clock()];
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

  // What is being typed is not written over, also while the button is on its way.
  tellText(told) {
    if (this.text.value === this.told && document.activeElement !== this.text) this.text.value = told;
    this.told = told;
  }

  tell(live) {
    if (!this.runs || !live) return;
    const running = Boolean(live.running[this.piece.id]);
    if (this.start?.isConnected) {
      this.start.hidden = running;
      this.stop.hidden = !running;
    } else if (this.text) this.tellText(live.texts[this.piece.id] ?? "");
  }
}
