// What the chosen piece's settings do, measured by Ruby: legibility over the pictures, and pace.
import { button, make } from "../house/elements.js";
import { get } from "../house/send.js";
import { clock, count, day, lasting } from "../house/words.js";

// Once edits rest: what is measured while somebody drags is old when it is drawn.
const AFTER_MS = 400;
const EVERY_MS = 5000;
const DAY_MS = 86_400_000;
const PARTS = { text: "text", name: "name", time: "time", amount: "amount", message: "message" };
const TONES = {
  cut: "mind",
  tight: "mind",
  good: "fine",
  calm: "fine",
  "on its way": "fine",
  fair: "mind",
  brisk: "mind",
  stale: "mind",
  empty: "mind",
  poor: "mind",
  "too fast": "mind",
};

const seconds = (ms) => (ms === null ? "for good" : `${(ms / 1000).toFixed(ms < 10000 ? 1 : 0).replace(".0", "")} s`);

export class Measures {
  // set(values): what a press on an offered change does
  constructor(root, frame, path, set) {
    this.root = root;
    this.path = path;
    this.set = set;
    this.mark = make("div", "worst-patch", make("span"));
    this.mark.hidden = true;
    frame.append(this.mark);
    setInterval(() => this.ask(), EVERY_MS);
  }

  show(piece, ratio) {
    this.ratio = ratio;
    const before = this.piece;
    this.piece = piece;
    if (!piece) {
      this.mark.hidden = true;
      this.root.replaceChildren();
      return;
    }
    if (before?.id !== piece.id) this.root.replaceChildren();
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.ask(), AFTER_MS);
  }

  async ask() {
    const { piece } = this;
    if (!piece || document.hidden) return;
    const told = await get(`${this.path}?piece=${piece.id}`).catch(() => null);
    if (told && this.piece?.id === piece.id) this.draw(told);
  }

  draw({ legibility, pace, room, goal, wrong }) {
    const cut = !room && this.cut();
    const drawn = JSON.stringify([legibility, pace, room, goal, wrong, cut, this.ratio]);
    if (this.drawn === drawn && this.root.children.length > 0) return;
    this.drawn = drawn;
    this.root.replaceChildren(
      ...[
        legibility && this.legibility(legibility),
        pace && this.pace(pace),
        room && this.room(room),
        cut && this.card("Room", "cut", "Too small", "Words of this piece are cut off. Make it larger, or its text smaller."),
        goal && this.goal(goal),
        this.wrong(wrong),
      ].filter(Boolean),
    );
    this.place(legibility);
  }

  // As the draft finds it where it is drawn.
  cut() {
    const drawn = document.querySelector("#draft")?.contentDocument?.querySelector(`[data-piece="${this.piece.id}"]`);
    return Boolean(drawn?.hasAttribute("data-no-room"));
  }

  card(title, word, figure, words, more = []) {
    const chip = make("span", `chip ${TONES[word]}`, word);
    return make(
      "section",
      "measure",
      make("div", "measure-head", make("h3", "", title), chip),
      make("b", "figure", figure),
      make("p", "said", words),
      ...more,
    );
  }

  legibility({ word, usual, worst, part, over, ways }) {
    const offered = ways.map(({ words, values }) => button(words, null, () => this.set(values), "button small"));
    const more = offered.length > 0 ? [make("p", "said", "Enough with"), make("div", "measure-ways", ...offered)] : [];
    return this.card("Legibility", word, `${usual} : 1`, `worst ${worst} : 1, the ${PARTS[part]} over ${over}`, more);
  }

  pace({ word, fits, stays_ms: stays, longest_needs_ms: longest, per_minute: rate, advice, values }) {
    const words = `on screen; the longest needs ${seconds(longest)}. ${fits} fit, ${rate} a minute come.`;
    const mend = values && button("Do that", null, () => this.set(values), "button small");
    return this.card("Pace", word, seconds(stays), words, advice ? [make("p", "said", advice), mend] : []);
  }

  // What the people who are there need of the piece.
  room({ needs_px: [wide, high], has_px: [width, height], people, word }) {
    const words = {
      good: `for ${count(people, "person", "people")}; the piece is ${width} × ${height}.`,
      tight: `for ${count(people, "person", "people")}; the piece is ${width} × ${height}, so names are cut shorter.`,
      cut: `for ${count(people, "person", "people")}; the piece is ${width} × ${height}, so not all of them are seen.`,
    };
    const enough = { width: Math.max(width, wide), height: Math.max(height, high) };
    const more = word === "good" ? [] : [button("Make it large enough", null, () => this.set(enough), "button small")];
    return this.card("Room", word, `${wide} × ${high}`, words[word], more);
  }

  // How fast it fills, and when it would be full.
  goal({ per_hour: rate, left_ms: left }) {
    const at = Date.now() + left;
    const when = left < DAY_MS ? `at ${clock(at)}` : `on ${day(at)}`;
    return this.card("Rate", "on its way", `${rate} an hour`, `at that rate it is reached ${when}, in ${lasting(left)}.`);
  }

  // What cannot be used of own CSS and markup.
  wrong(words) {
    if (words.length === 0) return null;
    return make(
      "section",
      "measure wide",
      make("h3", "", "Left out of what you wrote"),
      make("ul", "said", ...words.map((one) => make("li", "", one))),
    );
  }

  // Where on the stage it is worst.
  place(legibility) {
    const patch = legibility?.patch;
    this.mark.hidden = !patch;
    if (!patch) return;
    const [x, y, width, height] = patch;
    Object.assign(this.mark.style, { left: `${(x + width / 2) * this.ratio}px`, top: `${(y + height / 2) * this.ratio}px` });
    this.mark.firstElementChild.textContent = legibility.worst;
    this.mark.classList.toggle("bad", legibility.word !== "good");
  }
}
