// The line to Bavard: comes back by itself after any kind of failure, and says where it was.
const FIRST_MS = 250;
const LONGEST_MS = 8000;
const SILENT_MS = 40000;
const OPENS_WITHIN_MS = 5000;
const REPLACED = 4404;

export class Socket {
  constructor(path, { frame, missed, open, replaced, only }) {
    this.path = path;
    this.on = { frame, missed, open, replaced, only };
    this.last = "";
    this.failures = 0;
    this.connect();
    setInterval(() => this.watch(), 5000);
  }

  connect() {
    const scheme = location.protocol === "https:" ? "wss" : "ws";
    this.socket = new WebSocket(`${scheme}://${location.host}${this.path}?last=${encodeURIComponent(this.last)}`);
    this.heardAt = performance.now();
    this.socket.addEventListener("open", () => this.on.open?.());
    this.socket.addEventListener("message", (event) => this.hear(event.data));
    this.socket.addEventListener("close", (event) => this.closed(event.code));
  }

  hear(text) {
    this.heardAt = performance.now();
    this.failures = 0;
    const frame = JSON.parse(text);
    if (frame.only) this.on.only?.(frame.only);
    if (!frame.at) return;
    if (frame.whole || frame.missed) this.last = frame.at;
    else if (!this.follows(frame.at)) return;
    if (frame.missed) this.on.missed(frame.missed);
    else this.on.frame(frame);
  }

  // Frames come one after another; after a hole only a whole picture helps.
  follows(at) {
    const [boot, seq] = at.split(":");
    const [lastBoot, lastSeq] = this.last.split(":");
    if (boot === lastBoot && Number(seq) <= Number(lastSeq)) return false;
    if (boot === lastBoot && Number(seq) === Number(lastSeq) + 1) {
      this.last = at;
      return true;
    }
    this.last = "";
    this.socket.close();
    return false;
  }

  closed(code) {
    if (code === REPLACED) {
      this.on.replaced?.();
      this.last = "";
      this.failures = 10;
    }
    const ceiling = Math.min(LONGEST_MS, FIRST_MS * 2 ** this.failures);
    this.failures += 1;
    setTimeout(() => this.connect(), ceiling / 2 + (Math.random() * ceiling) / 2);
  }

  // A line that was cut without a word, or never answered.
  watch() {
    const longest = { [WebSocket.CONNECTING]: OPENS_WITHIN_MS, [WebSocket.OPEN]: SILENT_MS }[this.socket.readyState];
    if (performance.now() - this.heardAt > longest) this.socket.close();
  }

  send(value) {
    if (this.socket.readyState === WebSocket.OPEN) this.socket.send(JSON.stringify(value));
  }
}
