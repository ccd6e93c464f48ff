// What an edit would have changed: run over the log by the server, shown in figures, over time and by examples.
import { button, make, svg } from "../house/elements.js";
import { attempt, get, send, sendJson } from "../house/send.js";
import { clock, count } from "../house/words.js";
import { markOf } from "../link/marks.js";

const LOOK_EVERY_MS = 250;
const HEIGHT = 40;
const BAR = 4;

function figure(number, sign, words, className) {
  return make(
    "div",
    `replay-figure ${className}`,
    make("b", "figure", `${sign} ${number.toLocaleString("en").replaceAll(",", " ")}`),
    make("span", "said", words),
  );
}

function picture(bars) {
  const most = Math.max(1, ...bars.map(([all]) => all));
  const drawn = svg("svg", {
    class: "replay-bars",
    viewBox: `0 0 ${bars.length * BAR} ${HEIGHT}`,
    preserveAspectRatio: "none",
    role: "img",
  });
  drawn.setAttribute("aria-label", "Lines over that time, with what would have changed");
  for (const [index, [all, off, through]] of bars.entries()) {
    const height = all === 0 ? 0 : Math.max(1, (all / most) * HEIGHT);
    const kind = off > 0 ? "off" : through > 0 ? "through" : "all";
    drawn.append(svg("rect", { class: kind, x: index * BAR, width: BAR - 1, y: HEIGHT - height, height }));
  }
  return drawn;
}

export class Replay {
  constructor(edit, feeds) {
    this.edit = edit;
    this.feeds = feeds;
    this.span = document.querySelector("#replay-span");
    this.between = document.querySelector("#replay-between");
    this.figures = document.querySelector("#replay-figures");
    this.list = document.querySelector("#replay-list");
    this.span.addEventListener("change", () => {
      this.between.hidden = this.span.value !== "between";
      if (this.between.hidden) this.begin();
    });
    this.between.addEventListener("submit", (event) => {
      event.preventDefault();
      this.begin();
    });
    edit.heard(() => this.begin());
    this.nothing();
  }

  nothing() {
    this.run = null;
    this.figures.replaceChildren();
    this.list.replaceChildren(
      make("p", "said", "Change a rule, and what it would have done to the lines that came is counted here, before it counts for anybody."),
    );
  }

  // Of several that are begun shortly one after another the last one counts, whichever is answered first.
  begin() {
    this.begun = (this.begun ?? 0) + 1;
    if (!this.edit.changed) return this.nothing();
    this.run = null;
    const { begun } = this;
    attempt(async () => {
      const times = this.span.value === "between" ? this.times() : {};
      const run = await sendJson("/gate/replay", { rules: this.edit.rules, span: this.span.value, ...times });
      if (begun === this.begun) this.follow(run);
    });
  }

  times() {
    const [from, to] = ["from", "to"].map((name) => new Date(document.querySelector(`#replay-${name}`).value).getTime());
    return { from_ms: from, to_ms: to };
  }

  async follow(run) {
    this.run = run.id;
    this.show(run);
    if (run.state !== "running") return;
    setTimeout(async () => {
      if (this.run !== run.id) return;
      const next = await attempt(() => get(`/gate/replay/${run.id}`));
      if (next && this.run === run.id) this.follow(next);
    }, LOOK_EVERY_MS);
  }

  show(run) {
    const ended = {
      failed: "That could not be worked out. It is in the log; the edit can be kept all the same.",
      stopped: "Stopped. The edit can be kept all the same.",
    }[run.state];
    if (ended) {
      this.figures.replaceChildren();
      return this.list.replaceChildren(make("p", "said", ended));
    }
    if (run.result) this.told(run.result);
    else this.counting(run);
  }

  // What came of the edit before says nothing of this one.
  counting({ id, total, done }) {
    const bar = make("progress");
    bar.max = total || 1;
    if (total) bar.value = done;
    bar.setAttribute("aria-label", "Lines looked at");
    const stop = button("Stop", "square", () => attempt(async () => this.follow(await send(`/gate/replay/${id}/stop`))), "button plain");
    this.figures.replaceChildren(bar, make("span", "said figure", total ? `${done} of ${total}` : "begins"), stop);
    this.list.replaceChildren();
  }

  told({ off, through, otherwise, bars, examples, lines }) {
    this.figures.replaceChildren(
      figure(off, "+", "newly kept off", "off"),
      figure(through, "−", "newly let through", "through"),
      picture(bars),
    );
    const words =
      examples.length === 0
        ? [
            make(
              "p",
              "said",
              `Nothing in ${count(lines, "line")}.${otherwise ? ` ${count(otherwise, "line")} would be written otherwise.` : ""}`,
            ),
          ]
        : [];
    this.list.replaceChildren(...words, ...examples.map((one) => this.example(one)));
  }

  example(one) {
    const feed = this.feeds.find((known) => known.id === String(one.feed_id));
    const label = this.edit.state.kinds.find((kind) => (one.rule ?? "").startsWith(kind.key))?.label ?? "Through";
    const text = make("span", "text", one.change === "otherwise" && one.shown ? one.shown : one.text);
    text.dir = "auto";
    return make(
      "p",
      "replay-line",
      make("time", "figure", clock(one.at_ms)),
      feed ? markOf(feed.mark) : null,
      make("bdi", "", one.name),
      text,
      make("span", `chip tag ${{ off: "off", through: "well", otherwise: "told" }[one.change]}`, label),
    );
  }
}
