// The queue: what plays, what waits, and what happened lately.
import { button, icon, make } from "../house/elements.js";
import { KeptRows } from "../house/kept_rows.js";
import { say } from "../house/messages.js";
import { attempt, get, send, sendJson } from "../house/send.js";
import { clock } from "../house/words.js";

const LATELY = 8;

export class Queue {
  // kinds(): words of each kind of event; asks(): whether each waits until it is let go; changed(sheet)
  constructor({ kinds, asks, changed }) {
    Object.assign(this, { kinds, asks });
    this.now = {};
    this.rows = new KeptRows(document.querySelector("#queue"));
    this.latest = new KeptRows(document.querySelector("#lately"));
    const on = (id, act) => document.querySelector(id).addEventListener("click", act);
    on("#pause", () => this.pause());
    on("#skip", () => this.act("skip"));
    on("#clear", () => this.act("clear"));
    on("#begin", () => this.begin());
    document
      .querySelector("#approve")
      .addEventListener("change", ({ target }) =>
        attempt(async () => changed(await sendJson("/dress/cues/queue", { approve: target.checked }))),
      );
  }

  async begin() {
    const ends = this.on();
    const { began, ended } = this.now;
    const now = await attempt(() => send(`/dress/cues/${ends ? "end" : "begin"}`));
    if (!now) return;
    this.show(now);
    const values = { began, ...(ended ? { ended } : {}) };
    const undo = began ? () => attempt(async () => this.show(await send("/dress/cues/begun-before", values))) : undefined;
    say(ends ? "The broadcast is over. What it counted stands." : "It is counted from now on.", { undo });
  }

  look() {
    return attempt(async () => this.show(await get("/dress/cues/now")));
  }

  // Whether a broadcast goes on.
  on() {
    return Boolean(this.now.began) && !this.now.ended;
  }

  pause() {
    return this.act(this.now.paused ? "go_on" : "pause");
  }

  act(what, values = {}) {
    return attempt(async () => this.show(await send(`/dress/cues/now/${what}`, values)));
  }

  show(now) {
    this.now = now;
    document.querySelector("#begin span").textContent = this.on() ? "The broadcast ends now" : "The broadcast begins now";
    const noticed = now.noticed ? `, noticed on ${now.noticed}` : "";
    document.querySelector("#began").textContent = this.on()
      ? `Since ${clock(now.began)}${noticed}. What counts the broadcast counts from there.`
      : "What counts the broadcast begins anew with it.";
    document.querySelector("#pause span").textContent = now.paused ? "Go on" : "Pause";
    this.rows.show(this.queued(now));
    this.latest.show(now.recent.slice(0, LATELY).map((one) => this.late(one)));
  }

  late(one) {
    return { key: [one.at, one.line, one.name].join(), told: [one, this.kinds()[one.kind]], draw: () => this.lately(one) };
  }

  // Rows of what plays and what waits.
  queued({ playing, waiting }) {
    if (!playing && waiting.length === 0) return [{ key: "none", draw: () => make("p", "said", "Nothing waits.") }];
    const drawn = () => make("div", "cue-waiting playing", icon("play"), make("b", "", playing.words));
    const rows = waiting.map((one) => ({ key: one.id, told: [one, this.asks()], draw: () => this.waiting(one) }));
    return playing ? [{ key: "playing", told: playing, draw: drawn }, ...rows] : rows;
  }

  waiting(one) {
    const line = make("div", "cue-waiting", make("span", "", one.words));
    if (this.asks() && !one.approved)
      line.append(button("Let it play", "play", () => this.act("approve", { id: one.id }), "button plain push"));
    const off = button("", "x", () => this.act("remove", { id: one.id }), "button plain");
    off.setAttribute("aria-label", `Take “${one.words}” out of the queue`);
    line.append(off);
    return line;
  }

  lately(one) {
    const again = button("Play again", "repeat", () => attempt(() => send("/dress/cues/again", { line: one.line })), "button plain push");
    const words = `${one.name}: ${this.kinds()[one.kind] ?? one.kind}${one.worth ? `, ${one.worth}` : ""}`;
    const played = make("span", "said", one.cue ? `“${one.cue}”` : "nothing played");
    return make("div", "cue-waiting", make("time", "figure", clock(one.at)), make("span", "", words), played, again);
  }
}
