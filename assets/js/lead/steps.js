// The list of steps: how each stands, and which one is open.

// chosen: the one somebody opened by hand, or none
export function openStep(steps, chosen) {
  if (steps.some(({ key }) => key === chosen)) return chosen;
  return (steps.find(({ state }) => state === "now") ?? steps.at(-1))?.key;
}

export class Steps {
  constructor(list) {
    this.items = [...list.querySelectorAll("[data-step]")];
    this.steps = [];
    this.chosen = null;
    for (const item of this.items) item.querySelector(".lead-head").addEventListener("click", () => this.choose(item.dataset.step));
  }

  get open() {
    return openStep(this.steps, this.chosen);
  }

  choose(key) {
    this.chosen = key;
    this.draw();
  }

  show(steps) {
    // What was opened by hand is left when it is done.
    const was = this.steps.find(({ key }) => key === this.chosen)?.state;
    const now = steps.find(({ key }) => key === this.chosen)?.state;
    if (was && was !== "done" && now === "done") this.chosen = null;
    this.steps = steps;
    this.draw();
  }

  draw() {
    const { open } = this;
    for (const item of this.items) {
      const step = this.steps.find(({ key }) => key === item.dataset.step);
      if (!step) continue;
      item.dataset.state = step.state;
      item.classList.toggle("open", step.key === open);
      item.querySelector(".lead-head").setAttribute("aria-expanded", step.key === open);
      item.querySelector(".lead-body").hidden = step.key !== open;
      const words = item.querySelector("[data-words]");
      if (words.textContent !== step.words) words.textContent = step.words;
    }
  }
}
