// The line to Bavard: comes back by itself after any kind of failure, and says where it was. What it brings is shown once it is of now.
import { Flow } from "./flow.js";

const FIRST_MS = 250;
// Whatever was killed is there again within a few seconds, and so is a screen; what is away for longer is asked for less often.
const SOON_MS = 1000;
const SOON_TRIES = 60;
const LONGEST_MS = 8000;
const SILENT_MS = 40000;
// A line over which the server tells its time does so each second.
const TIMED_SILENT_MS = 6000;
const LOOK_MS = 2000;
const OPENS_WITHIN_MS = 5000;
// Where thousands come back at once, whoever asks again too soon only makes the others wait longer.
const MOST_PATIENCE = 4;
const REPLACED = 4404;

export class Socket {
  // current(): what is shown is of now; gone(frame): a frame that cannot be shown yet, for what it takes away
  constructor(path, { frame, missed, open, replaced, only, current, gone }) {
    this.path = path;
    this.on = { frame, missed, open, replaced, only, current, gone };
    this.last = "";
    this.kept = [];
    this.flow = new Flow((here) => this.send({ here }));
    this.failures = 0;
    this.patience = 1;
    this.timed = false;
    this.connect();
    setInterval(() => this.watch(), LOOK_MS);
  }

  connect() {
    const scheme = location.protocol === "https:" ? "wss" : "ws";
    const socket = new WebSocket(`${scheme}://${location.host}${this.path}?last=${encodeURIComponent(this.last)}`);
    this.socket = socket;
    // Until it is told what is there; what comes before that is kept.
    this.early = [];
    this.owed = null;
    this.ended = false;
    this.heardAt = performance.now();
    const on = (what, then) => socket.addEventListener(what, (event) => !socket.givenUp && then(event));
    on("open", () => {
      this.flow.begin();
      this.on.open?.();
    });
    on("message", (event) => this.hear(event.data));
    on("close", (event) => this.closed(event.code));
  }

  hear(text) {
    this.heardAt = performance.now();
    this.failures = 0;
    this.patience = 1;
    const frame = JSON.parse(text);
    if (frame.t !== undefined && !frame.here && !frame.at) this.timed = true;
    if (frame.replaced) return this.end();
    if (frame.here) return this.answered(frame);
    this.flow.heard(frame.t);
    if (frame.at && !this.take(frame)) return;
    if (this.early && !frame.only) return;
    if (this.owed) this.answered(this.owed);
    if (this.flow.behind) return this.on.gone?.(frame);
    if (frame.only) this.on.only?.(frame.only);
    this.show();
  }

  // Gives whether it follows what is known.
  take(frame) {
    if (frame.whole || frame.missed) return this.begin(frame);
    if (this.early) this.early.push(frame);
    else if (this.follows(frame.at)) this.kept.push(frame);
    else return false;
    return true;
  }

  // With what there is. Over a relay in front a frame may be here before that.
  begin(frame) {
    this.last = frame.at;
    this.kept.push(frame);
    const early = this.early ?? [];
    this.early = null;
    for (const one of early) if (one.at.split(":")[0] === this.last.split(":")[0] && this.follows(one.at)) this.kept.push(one);
    return true;
  }

  // An answer may be here before what it is about; it counts once that is.
  answered(answer) {
    this.owed = answer.upto === undefined || this.reached(answer.upto) ? null : answer;
    if (!this.owed && this.flow.answered(answer.here, answer.t)) this.show();
  }

  reached(at) {
    const [life, seq] = at.split(":");
    const [lastLife, lastSeq] = this.last.split(":");
    return !this.early && life === lastLife && Number(seq) <= Number(lastSeq);
  }

  // Told in a word by who cannot say it with a code.
  end() {
    this.ended = true;
    this.socket.close();
  }

  // All that waits in one go, so that nothing is painted that is taken away in it.
  show() {
    const kept = this.kept.map((frame) => this.flow.aged(frame));
    this.kept = [];
    const from = kept.findLastIndex((frame) => frame.whole);
    if (from >= 0) this.on.frame(kept[from]);
    const rest = kept.slice(from + 1);
    if (kept.length === 1 && rest.length === 1 && !rest[0].missed) this.on.frame(rest[0]);
    else if (rest.length > 0) this.on.missed(rest.flatMap((frame) => frame.missed ?? [frame]));
    this.on.current?.();
  }

  // Frames come one after another; after a hole only a whole picture helps.
  follows(at) {
    const [life, seq] = at.split(":");
    const [lastLife, lastSeq] = this.last.split(":");
    if (life === lastLife && Number(seq) <= Number(lastSeq)) return false;
    if (life === lastLife && Number(seq) === Number(lastSeq) + 1) {
      this.last = at;
      return true;
    }
    this.last = "";
    this.socket.close();
    return false;
  }

  closed(code) {
    if (code === REPLACED || this.ended) {
      this.on.replaced?.();
      this.last = "";
      this.kept = [];
      this.failures = SOON_TRIES;
    }
    const ceiling = Math.min(this.failures < SOON_TRIES ? SOON_MS : LONGEST_MS, FIRST_MS * 2 ** this.failures);
    this.failures += 1;
    setTimeout(() => this.connect(), ceiling / 2 + (Math.random() * ceiling) / 2);
  }

  // A line that was cut without a word, or never answered.
  watch() {
    const opening = this.socket.readyState === WebSocket.CONNECTING;
    const longest = {
      [WebSocket.CONNECTING]: OPENS_WITHIN_MS * this.patience,
      [WebSocket.OPEN]: this.timed ? TIMED_SILENT_MS : SILENT_MS,
    }[this.socket.readyState];
    if (!(performance.now() - this.heardAt > longest)) return;
    if (opening) this.patience = Math.min(2 * this.patience, MOST_PATIENCE);
    this.giveUp();
  }

  // Nobody answers to its end either, which a browser waits for: as long as a minute.
  giveUp() {
    this.socket.givenUp = true;
    this.socket.close();
    this.closed();
  }

  send(value) {
    if (this.socket.readyState === WebSocket.OPEN) this.socket.send(JSON.stringify(value));
  }
}
