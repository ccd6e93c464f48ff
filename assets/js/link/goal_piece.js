// A goal on its way: as a line, a ring, a jar that fills, or in plain words.
import { make, svg } from "../house/elements.js";
import { Piece } from "./piece.js";

const ROUND = 2 * Math.PI * 42;

const written = (number) => (Number.isInteger(number) ? String(number) : number.toFixed(2)).replace(/\B(?=(\d{3})+(?!\d))/g, " ");

export class GoalPiece extends Piece {
  constructor(id, overrides) {
    super(id, "goal", overrides);
    this.box = make("div", "plate goal-box");
    this.title = make("span", "goal-title text");
    this.figures = make("span", "goal-figures text");
    this.drawing = make("div", "goal-drawing");
    this.box.append(this.drawing, make("div", "goal-words", this.title, this.figures));
    this.element.append(this.box);
  }

  style(given) {
    super.style(given);
    if (this.form !== given.words.drawn) this.build(given.words.drawn);
    this.draw();
  }

  build(form) {
    this.form = form;
    const drawn = {
      line: () => make("div", "goal-line", make("i")),
      ring: () => {
        const ring = svg("svg", { viewBox: "0 0 100 100", class: "goal-ring" });
        ring.append(svg("circle", { cx: 50, cy: 50, r: 42, class: "rest" }), svg("circle", { cx: 50, cy: 50, r: 42, class: "done" }));
        return ring;
      },
      jar: () => make("div", "goal-jar", make("i")),
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
    this.title.textContent = reached && this.given.reached ? this.given.reached : this.given.title;
    const unit = this.given.counted === "worth" ? ` ${this.given.unit}` : "";
    const both = `${written(value)} of ${written(to)}${unit}`;
    const words = { both, value: `${written(value)}${unit}`, percent: `${Math.floor(share * 100)} %`, none: "" };
    this.figures.textContent = words[this.given.figures];
    this.figures.hidden = this.figures.textContent === "";
    this.element.classList.toggle("reached", reached);
    this.element.style.setProperty("--share", share);
    this.drawing.querySelector(".done")?.setAttribute("stroke-dasharray", `${share * ROUND} ${ROUND}`);
  }
}
