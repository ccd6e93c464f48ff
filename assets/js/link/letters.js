// Words that come by letter or by word, count up, or wave while they stand. Loaded once a cue asks for it.
const STEP_MS = { letters: 38, words: 150 };
// However long the words are, all of them have come within this.
const ALL_WITHIN_MS = 2400;
const COUNT_MS = 1400;
// Letters that do not join: of other scripts a word is the smallest part.
const APART =
  /^[\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}\p{Nd}\p{P}\p{S}\p{M}\s]*$/u;

function partsOf(text, by) {
  if (by === "letters" && APART.test(text))
    return [...new Intl.Segmenter(undefined, { granularity: "grapheme" }).segment(text)].map(({ segment }) => segment);
  return text.split(/(?<=\s)(?=\S)/u);
}

// Each part of the words as an element of its own, in their order. Its spaces stay, so that lines break where they did.
export function takenApart(root, by) {
  const walker = document.createTreeWalker(root, NodeFilter.SHOW_TEXT);
  const texts = [];
  while (walker.nextNode()) texts.push(walker.currentNode);
  return texts.flatMap((text) => {
    const units = partsOf(text.data, by).map((part) => {
      const unit = document.createElement("span");
      unit.className = part.trim() === "" ? "" : "unit";
      unit.textContent = part;
      return unit;
    });
    text.replaceWith(...units);
    return units.filter((unit) => unit.className === "unit");
  });
}

// Figures of the words as they are on their way: share 0 to 1.
export function countedTo(text, share) {
  return text.replace(/\d+(?:[.,]\d+)?/, (figure) => {
    const [, , decimals = ""] = figure.match(/(\d+)(?:[.,](\d+))?/);
    const now = (Number.parseFloat(figure.replace(",", ".")) * share).toFixed(decimals.length);
    return figure.includes(",") ? now.replace(".", ",") : now;
  });
}

function countUp(root, { begins, elapsed }) {
  for (const element of root.querySelectorAll(".alert-amount, .alert-number, .alert-months")) {
    const whole = element.textContent;
    const from = performance.now() + begins - elapsed;
    const draw = () => {
      const share = Math.min(1, Math.max(0, (performance.now() - from) / COUNT_MS));
      element.textContent = share === 1 ? whole : countedTo(whole, 1 - (1 - share) ** 3);
      if (share < 1 && element.isConnected) requestAnimationFrame(draw);
    };
    draw();
  }
}

// by: letters, words, counted, or nothing; wave: whether they wave while they stand; at: when they begin, how much of the cue is over
export function move(root, { by, wave }, motion, at) {
  if (by === "counted") countUp(root, at);
  if (by !== "letters" && by !== "words" && !wave) return;
  const units = takenApart(root, by === "words" ? "words" : "letters");
  for (const [index, unit] of units.entries()) {
    if (wave) {
      unit.classList.add("waves");
      unit.style.setProperty("--unit", index);
    }
    if (by !== "letters" && by !== "words") continue;
    const step = Math.min(STEP_MS[by], ALL_WITHIN_MS / units.length);
    const frames = motion.in.length > 0 ? motion.in : [{ opacity: 0 }, { opacity: 1 }];
    const one = unit.animate(frames, {
      delay: at.begins + index * step,
      duration: motion.in_ms || 1,
      easing: motion.easing,
      fill: "backwards",
    });
    one.currentTime = at.elapsed;
  }
}
