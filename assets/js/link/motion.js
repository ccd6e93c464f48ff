// Plays the motion Ruby describes: how lines come in, make room and go out. "lively" shortens it when many come.
const SHORTEST_MS = 20;

const length = (ms, lively) => (ms * lively >= SHORTEST_MS ? ms * lively : 0);

export function comeIn(line, motion, lively) {
  const duration = length(motion.in_ms, lively);
  if (duration === 0) return;
  if (motion.typed) return typeOut(line, duration);
  if (motion.in.length > 0) line.firstElementChild.animate(motion.in, { duration, easing: motion.easing });
}

// The line leaves its place at once, so that others can make room, and is gone when its way out is over.
export function goOut(line, motion, lively) {
  const duration = length(motion.out_ms, lively);
  if (duration === 0 || motion.out.length === 0) return line.remove();
  const { offsetLeft, offsetTop, offsetWidth, offsetHeight, parentElement: stack } = line;
  // From the edge the stack stands on: the other one moves as it grows and shrinks.
  const fromTop = stack.parentElement.dataset.newest === "top";
  const place = fromTop ? { top: `${offsetTop}px` } : { bottom: `${stack.clientHeight - offsetTop - offsetHeight}px` };
  line.classList.add("leaving");
  Object.assign(line.style, { left: `${offsetLeft}px`, width: `${offsetWidth}px`, ...place });
  const way = line.firstElementChild.animate(motion.out, { duration, easing: motion.easing, fill: "forwards" });
  way.onfinish = () => line.remove();
}

// In the piece, however the stack has grown.
const placeOf = (line) => [line.parentElement.offsetLeft + line.offsetLeft, line.parentElement.offsetTop + line.offsetTop];

// Where lines stand, to be asked again once others have come.
export function places(lines) {
  return new Map([...lines].map((line) => [line, placeOf(line)]));
}

export function makeRoom(before, motion, lively) {
  const duration = length(motion.room_ms, lively);
  if (duration === 0) return;
  for (const [line, [left, top]] of before) {
    if (!line.isConnected || line.classList.contains("leaving")) continue;
    const [nowLeft, nowTop] = placeOf(line);
    const across = left - nowLeft;
    const down = top - nowTop;
    if (across === 0 && down === 0) continue;
    line.animate([{ transform: `translate(${across}px, ${down}px)` }, { transform: "translate(0, 0)" }], {
      duration,
      easing: motion.easing,
      composite: "add",
    });
  }
}

// Letter by letter, an emote counting as one.
function typeOut(line, duration) {
  const steps = [...line.querySelectorAll(".text")].flatMap((text) => lettersOf(text));
  const each = duration / Math.max(1, steps.length);
  for (const [index, step] of steps.entries())
    step.animate([{ opacity: 0 }, { opacity: 1 }], { delay: index * each, duration: 1, fill: "backwards" });
}

function lettersOf(element) {
  const letters = [];
  for (const node of [...element.childNodes]) {
    if (node.nodeType !== Node.TEXT_NODE) {
      letters.push(node);
      continue;
    }
    const spans = [...graphemes(node.data)].map((letter) => {
      const span = document.createElement("span");
      span.textContent = letter;
      return span;
    });
    node.replaceWith(...spans);
    letters.push(...spans);
  }
  return letters;
}

function graphemes(text) {
  return [...new Intl.Segmenter().segment(text)].map((part) => part.segment);
}
