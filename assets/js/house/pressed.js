// Nothing is drawn anew under a finger: a button that is another one when it is let go was not pressed at all.
const LONGEST_MS = 1000;
// What acts once it is let go. Whatever is dragged acts meanwhile, and is told at once what comes of it.
const PRESSES = "button, summary, a[href], [role=tab], input[type=checkbox], input[type=radio]";

let waiting = null;

function release() {
  const works = waiting ?? [];
  waiting = null;
  for (const work of works) work();
}

const pressable = ({ target }) => target.closest?.(PRESSES) || target.closest?.("label")?.control?.matches(PRESSES);

addEventListener(
  "pointerdown",
  (event) => {
    if (!pressable(event)) return;
    waiting ??= [];
    const begun = waiting;
    setTimeout(() => begun === waiting && release(), LONGEST_MS);
  },
  true,
);
// The press itself comes first: it is told right after its button is let go. What had the keyboard before loses it meanwhile.
for (const end of ["pointerup", "pointercancel"]) addEventListener(end, () => setTimeout(release), true);
addEventListener("blur", ({ target }) => target === window && setTimeout(release));

// Does it at once, or when what is pressed just now is let go; one after another in any case.
export function unpressed(work) {
  if (waiting) waiting.push(work);
  else work();
}

// Until then.
export const released = () => (waiting ? new Promise((done) => waiting.push(done)) : null);
