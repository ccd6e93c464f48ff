// A goal on its way: as a line, a ring, a jar or a shape that fills, by steps or marks, or in plain words.
import { make, svg } from "../house/elements.js";
import { grouped } from "./coming.js";
import { sourceOf } from "./dress.js";
import { fit } from "./fitting.js";
import { Piece, plateOf } from "./piece.js";

const ROUND = 2 * Math.PI * 42;

const written = (number) => grouped(Number.isInteger(number) ? number : number.toFixed(2));

// Marks as one makes them by hand: four strokes and one across.
function tallies(count) {
  return Array.from({ length: Math.ceil(count / 5) }, (_, group) => {
    const five = svg("svg", { viewBox: "0 0 34 24", class: "tally" });
    const strokes = Math.min(5, count - group * 5);
    for (let stroke = 0; stroke < strokes; stroke++) {
      const lean = (group * 5 + stroke) % 3;
      const d = stroke < 4 ? `M${6 + stroke * 6 + lean} 2.5 L${5 + stroke * 6} 21.5` : `M2 ${17 + lean} L31 ${6 - lean}`;
      five.append(svg("path", { d, class: stroke < 4 ? "step" : "step across" }));
    }
    return five;
  });
}

export class GoalPiece extends Piece {
  constructor(id, overrides, kind = "goal") {
    super(id, kind, overrides);
    this.box = plateOf("goal-box");
    this.title = make("span", "goal-title text");
    this.figures = make("span", "goal-figures text");
    this.drawing = make("div", "goal-drawing");
    this.face = make("img", "goal-face");
    Object.assign(this.face, { alt: "", hidden: true });
    this.box.append(this.drawing, make("div", "goal-words", this.title, this.figures), this.face);
    this.element.append(this.box);
  }

  style(given) {
    super.style(given);
    const form = `${given.words.drawn} ${given.steps}`;
    if (this.form !== form) this.build(given.words.drawn, given.steps);
    this.form = form;
    this.draw();
  }

  build(form, steps) {
    const drawn = {
      line: () => make("div", "goal-line", make("i")),
      ring: () => {
        const ring = svg("svg", { viewBox: "0 0 100 100", class: "goal-ring" });
        ring.append(svg("circle", { cx: 50, cy: 50, r: 42, class: "rest" }), svg("circle", { cx: 50, cy: 50, r: 42, class: "done" }));
        return ring;
      },
      jar: () => make("div", "goal-jar", make("i")),
      steps: () => make("div", "goal-steps", ...Array.from({ length: steps }, () => make("i", "step"))),
      tally: () => make("div", "goal-tally", ...tallies(steps)),
      shape: () => make("div", "goal-own", make("i")),
    }[form];
    this.drawing.replaceChildren(...(drawn ? [drawn()] : []));
    this.drawing.hidden = !drawn;
  }

  counted(goal) {
    this.goal = goal;
    this.draw();
  }

  draw() {
    if (!this.goal) return;
    const { value, to, share, reached } = this.goal;
    this.title.textContent = this.headline();
    this.wear(this.goal.face);
    const unit = this.unit();
    const both = `${written(value)} of ${written(to)}${unit}`;
    const words = { both, value: `${written(value)}${unit}`, percent: `${Math.floor(share * 100)} %`, none: "" };
    this.figures.textContent = words[this.given.figures];
    this.figures.hidden = this.figures.textContent === "";
    this.fit();
    this.element.classList.toggle("reached", Boolean(reached));
    this.element.style.setProperty("--share", share);
    const passed = Math.floor(share * this.given.steps + 1e-9);
    for (const [index, step] of this.drawing.querySelectorAll(".step").entries()) step.classList.toggle("passed", index < passed);
    this.drawing.querySelector(".goal-ring .done")?.setAttribute("stroke-dasharray", `${share * ROUND} ${ROUND}`);
  }

  // The face it has by now, if any.
  wear(face) {
    this.face.hidden = !face;
    if (!face) return;
    const source = sourceOf(face, this.face.clientHeight || 100);
    if (this.face.getAttribute("src") === source) return;
    const other = this.face.hasAttribute("src");
    this.face.src = source;
    if (other) this.face.animate([{ scale: 0.7 }, { scale: 1.12 }, { scale: 1 }], { duration: 480, easing: "ease-out" });
  }

  fit() {
    const parts = this.box.querySelectorAll(".goal-words, .goal-drawing");
    fit(this.box, () => [...parts].some((part) => part.offsetTop < 0 || part.offsetTop + part.offsetHeight > this.box.clientHeight));
  }

  headline() {
    return this.goal.reached && this.given.reached ? this.given.reached : this.goal.title;
  }

  unit() {
    return ["worth", "cause"].includes(this.given.counted) ? ` ${this.given.unit}` : "";
  }
}

// A challenge is drawn as a goal is, with what it comes to in the end, the stages on its way, and its time.
export class ChallengePiece extends GoalPiece {
  constructor(id, overrides) {
    super(id, overrides, "challenge");
    this.element.classList.add("goal");
    this.clock = make("span", "goal-left text");
    this.clock.hidden = true;
    this.box.querySelector(".goal-words").append(this.clock);
    this.ticking = setInterval(() => this.tick(), 500);
  }

  remove() {
    clearInterval(this.ticking);
    super.remove();
  }

  live(card) {
    this.goal = card;
    this.ends = card.left ? performance.now() + card.left : null;
    this.draw();
  }

  draw() {
    super.draw();
    if (!this.goal) return;
    this.element.dataset.state = this.goal.state;
    const line = this.drawing.querySelector(".goal-line");
    for (const mark of line?.querySelectorAll(".stage-mark") ?? []) mark.remove();
    line?.append(
      ...this.goal.stages.map((stage, index) => {
        const mark = make("b", "stage-mark");
        mark.style.left = `${stage}%`;
        mark.classList.toggle("passed", index < this.goal.passed);
        return mark;
      }),
    );
    this.tick();
  }

  tick() {
    const left = this.ends && this.goal?.state === "running" ? Math.max(0, this.ends - performance.now()) : null;
    const seconds = left === null ? null : Math.ceil(left / 1000);
    const words = seconds === null ? "" : `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")}`;
    if (this.clock.textContent === words) return;
    this.clock.textContent = words;
    this.clock.hidden = words === "";
  }

  headline() {
    const { waits, reached, missed } = this.given;
    const { title } = this.goal;
    const words = { waiting: waits && `${title}, ${waits}`, reached, missed }[this.goal.state];
    return words || title;
  }

  unit() {
    return this.given.unit ? ` ${this.given.unit}` : "";
  }
}
