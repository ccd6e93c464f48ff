// Whoever works with the keyboard keeps their place: where what they pressed is drawn anew, hidden or taken away, the keyboard goes on at
// the same thing, else at what stands in its place, at what opened it, or where it was before.
const CAN = "button, summary, a[href], input:not([type=hidden]), select, textarea, [tabindex]";
const TYPED = "textarea, input:not([type=checkbox], [type=radio], [type=range], [type=file], [type=button])";
const BEFORE = 6;
// A piece is chosen by going there.
const CHOSEN = ".hand";

const seen = (one) => one.isConnected && (one.checkVisibility?.() ?? true);
const able = (one) => seen(one) && !one.disabled && one.tabIndex >= 0 && !one.matches(CHOSEN);
const keyOf = (one) => [one.tagName, one.id, one.name, one.getAttribute("aria-label") ?? one.textContent.trim(), one.value].join("|");
const within = (box) => [...box.querySelectorAll(CAN)].filter(able);

// What it is, and where: boxes that are known by name, the nearest first.
function placeOf(element) {
  const boxes = [];
  for (let box = element.parentElement; box && box !== document.body; box = box.parentElement)
    if (box.id || box.tagName === "DETAILS") boxes.push(box);
  return { element, key: keyOf(element), boxes, at: boxes[0] ? within(boxes[0]).indexOf(element) : -1 };
}

// A box that was drawn anew has its name still.
const now = (box) => (box.isConnected ? box : box.id && document.getElementById(box.id));

function same({ key, boxes }) {
  for (const box of boxes) {
    const found = now(box) && within(now(box)).find((one) => keyOf(one) === key);
    if (found) return found;
  }
  return null;
}

// What is typed next is not to end up in a field that nobody chose.
function instead({ boxes, at }) {
  const box = boxes[0] && now(boxes[0]);
  if (!box || !seen(box)) return null;
  if (box.tagName === "DETAILS" && !box.open) return box.querySelector("summary");
  const all = within(box).filter((one) => !one.matches(TYPED));
  return all[Math.min(Math.max(at, 0), all.length - 1)] ?? null;
}

function opener({ boxes }) {
  for (const box of boxes) {
    const summary = box.tagName === "DETAILS" && seen(box) ? box.querySelector("summary") : null;
    const found = summary ?? [...document.querySelectorAll(`[aria-controls="${box.id}"]`)].find(able);
    if (found) return found;
  }
  return null;
}

export function keepKeyboard() {
  let places = [];
  let waits = false;
  let left = false;
  document.addEventListener("focusout", ({ target, relatedTarget }) => {
    left = !relatedTarget;
    // What goes away says so before it is gone.
    queueMicrotask(() => {
      if (!seen(target) || target.disabled) left = false;
    });
  });
  document.addEventListener("focusin", ({ target }) => {
    left = false;
    places = [placeOf(target), ...places.filter(({ element }) => element !== target)].slice(0, BEFORE);
  });

  function look() {
    waits = false;
    const [last] = places;
    const at = document.activeElement;
    if (!last || left || (at && at !== document.body && seen(at) && !at.disabled)) return;
    if (seen(last.element) && !last.element.disabled) return;
    const before = places.slice(1).find(({ element }) => able(element))?.element;
    const found = same(last) ?? instead(last) ?? opener(last) ?? before ?? document.querySelector("#work, main");
    found?.focus({ preventScroll: true });
  }

  const later = () => {
    if (waits) return;
    waits = true;
    requestAnimationFrame(look);
  };
  new MutationObserver(later).observe(document.body, {
    subtree: true,
    childList: true,
    attributes: true,
    attributeFilter: ["hidden", "open", "disabled", "class"],
  });
}
