// One hand for each piece: what is taken hold of on the stage.
import { icon, make } from "../house/elements.js";

const SIDES = ["n", "s", "w", "e", "n w", "n e", "s w", "s e"];

export function handOf(piece, kind, called) {
  const grips = SIDES.map((side) => {
    const grip = make("span", "grip");
    grip.dataset.side = side;
    return grip;
  });
  const hand = make("div", "hand", make("span", "hand-size"), ...grips);
  hand.tabIndex = 0;
  hand.dataset.piece = piece.id;
  hand.dataset.kind = piece.kind;
  hand.setAttribute("role", "button");
  if (piece.kind === "space") hand.prepend(make("span", "hand-label", icon(kind.icon), make("b", "", called)));
  return hand;
}

export function dressHand(hand, piece, called, chosen) {
  hand.classList.toggle("chosen", chosen);
  hand.classList.toggle("locked", piece.locked);
  hand.classList.toggle("unseen", piece.hidden);
  hand.classList.toggle("behind", piece.side === "behind");
  hand.setAttribute("aria-pressed", chosen);
  hand.setAttribute("aria-label", `${called}: arrows move it, Alt with arrows sizes it`);
  const label = hand.querySelector(".hand-label b");
  if (label) label.textContent = called;
}

export function putHand(hand, { x, y, width, height }, { ratio, stage, alone }) {
  Object.assign(hand.style, {
    left: `${x * ratio}px`,
    top: `${y * ratio}px`,
    width: `${width * ratio}px`,
    height: `${height * ratio}px`,
  });
  const size = hand.querySelector(".hand-size");
  size.dataset.size = `${width} × ${height}`;
  size.hidden = !alone;
  hand.classList.toggle("alone", alone);
  hand.classList.toggle("low", (y + height) * ratio + 24 > stage.height * ratio);
  hand.classList.toggle("at-left", x * ratio < 24);
  hand.classList.toggle("at-right", (stage.width - x - width) * ratio < 24);
}
