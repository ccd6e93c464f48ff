// The line to the room: sends levels, hears whether one is taken in and shown. Comes back by itself.
const FIRST_MS = 250;
const LONGEST_MS = 4000;
// The server says something every quarter of a minute at least.
const SILENT_MS = 40000;
const LOOK_MS = 2000;
const REPLACED = 4404;
// What has not gone out by then is too old to be of use.
const MOST_WAITING_BYTES = 2000;

export class Line {
  // told(what): {room, you}, {talks}, {off}; state(open): whether the line holds; gone(): the link is not valid any more
  constructor(path, { told, state, gone }) {
    this.path = path;
    this.on = { told, state, gone };
    this.failures = 0;
    this.muted = false;
    this.connect();
    setInterval(() => this.watch(), LOOK_MS);
    window.addEventListener("online", () => this.connect());
  }

  connect() {
    if (this.ended || [WebSocket.CONNECTING, WebSocket.OPEN].includes(this.socket?.readyState)) return;
    clearTimeout(this.waiting);
    const scheme = location.protocol === "https:" ? "wss" : "ws";
    const socket = new WebSocket(`${scheme}://${location.host}${this.path}`);
    this.socket = socket;
    this.opened = false;
    this.heardAt = performance.now();
    const on = (what, then) => socket.addEventListener(what, (event) => socket === this.socket && then(event));
    on("open", () => {
      this.failures = 0;
      this.opened = true;
      this.on.state(true);
      this.send({ muted: this.muted });
    });
    on("message", ({ data }) => {
      this.heardAt = performance.now();
      this.on.told(JSON.parse(data));
    });
    on("close", ({ code }) => this.closed(code));
  }

  closed(code) {
    this.socket = null;
    this.on.state(false);
    if (code === REPLACED) return this.end();
    if (!this.opened) this.ask();
    const ceiling = Math.min(LONGEST_MS, FIRST_MS * 2 ** this.failures);
    this.failures += 1;
    this.waiting = setTimeout(() => this.connect(), ceiling / 2 + (Math.random() * ceiling) / 2);
  }

  end() {
    this.ended = true;
    clearTimeout(this.waiting);
    this.on.gone();
  }

  // Where it cannot be opened, the link may be void: its page says so.
  async ask() {
    const answer = await fetch(this.path.replace(/\/live$/, ""), { method: "HEAD", cache: "no-store" }).catch(() => null);
    if (answer?.status === 404 && !this.ended) this.end();
  }

  // A line that was cut without a word, as while the machine slept.
  watch() {
    if (!this.socket || performance.now() - this.heardAt < SILENT_MS) return;
    this.socket.close();
    this.closed();
  }

  mute(muted) {
    this.muted = muted;
    this.send({ muted });
  }

  level(level) {
    if (!this.muted && (this.socket?.bufferedAmount ?? 0) < MOST_WAITING_BYTES) this.send({ l: level });
  }

  send(value) {
    if (this.socket?.readyState === WebSocket.OPEN) this.socket.send(JSON.stringify(value));
  }
}
