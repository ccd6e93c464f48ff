// A question mark opens two sentences and a small moving picture, beside what it is about.
import { make } from "./elements.js";
import { scene } from "./scenes.js";

const APART_PX = 6;
let open = null;

export function closeHelp() {
  if (!open) return;
  open.card.remove();
  open.button.setAttribute("aria-expanded", "false");
  open = null;
}

// Below its question mark, inside of the window.
function place(card, button) {
  const { left, bottom, top } = button.getBoundingClientRect();
  const { width, height } = card.getBoundingClientRect();
  const below = bottom + APART_PX + height <= innerHeight || top < height;
  card.style.left = `${Math.max(8, Math.min(left, innerWidth - width - 8))}px`;
  card.style.top = `${below ? bottom + APART_PX : top - APART_PX - height}px`;
}

function show(button) {
  const { title, words, scene: name } = JSON.parse(button.dataset.help);
  const card = make("div", "help-card", scene(name), make("b", "", title), make("p", "", words));
  card.setAttribute("role", "status");
  // Above a dialog only what is in it can be seen.
  (button.closest("dialog") ?? document.body).append(card);
  button.setAttribute("aria-expanded", "true");
  open = { button, card };
  place(card, button);
}

// From now on question marks of this page open.
export function helpAsked() {
  document.addEventListener("click", (event) => {
    const button = event.target.closest?.("[data-help]");
    if (!button && open?.card.contains(event.target)) return;
    const again = button && button === open?.button;
    closeHelp();
    if (button && !again) show(button);
  });
  document.addEventListener("keydown", leave, true);
  document.addEventListener("scroll", closeHelp, true);
  addEventListener("resize", closeHelp);
}

// Before whatever else Escape would do.
function leave(event) {
  if (event.key !== "Escape" || !open) return;
  const { button } = open;
  closeHelp();
  button.focus();
  event.stopPropagation();
  event.preventDefault();
}
