// Whatever is cut off with an ellipsis says all of it once somebody points at it, or comes to it by keys.
const MOST = 40;
const cut = (one) => one.scrollWidth > one.clientWidth + 1 && getComputedStyle(one).textOverflow === "ellipsis";

function forget(one) {
  if (one.dataset.whole === undefined) return;
  one.removeAttribute("title");
  delete one.dataset.whole;
}

// A title that somebody else gave it stays.
function tell(one) {
  if (one.title !== (one.dataset.whole ?? "")) return;
  if (!cut(one)) return forget(one);
  one.title = one.textContent.trim().replace(/\s+/g, " ");
  one.dataset.whole = one.title;
}

const near = ({ target }) => {
  if (!(target instanceof Element)) return;
  for (const one of [target.parentElement, target, ...[...target.querySelectorAll("*")].slice(0, MOST)]) if (one) tell(one);
};

export function cutWordsTold() {
  for (const way of ["pointerover", "focusin"]) document.addEventListener(way, near);
}
