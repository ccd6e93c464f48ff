// Nothing is drawn anew under a finger: a button that is another one when it is let go was not pressed at all.
const LONGEST_MS = 1000;

let waiting = null;

function release() {
  const works = waiting ?? [];
  waiting = null;
  for (const work of works) work();
}

// The press itself comes first: it is told right after its button is let go.
addEventListener(
  "pointerdown",
  () => {
    waiting ??= [];
    const begun = waiting;
    setTimeout(() => begun === waiting && release(), LONGEST_MS);
  },
  true,
);
for (const end of ["pointerup", "pointercancel", "blur"]) addEventListener(end, () => setTimeout(release), true);

// Does it at once, or when what is pressed just now is let go; one after another in any case.
export function unpressed(work) {
  if (waiting) waiting.push(work);
  else work();
}

// Until then.
export const released = () => (waiting ? new Promise((done) => waiting.push(done)) : null);
