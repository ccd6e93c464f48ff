// A piece as it stands on a page, styled as Ruby styles it.
import { MOTION } from "./cards.js";
import { page } from "./page.js";

export function piece(Kind, style = {}) {
  const made = new Kind("p1", { css: {} });
  made.style({ place: [0, 0, 400, 300], opacity: 1, side: "front", css: { "--text-size": "30px" }, words: {}, motion: MOTION, ...style });
  page.document.body.append(made.element);
  return made;
}

export const text = (made, selector) => made.element.querySelector(selector)?.textContent;
