// What comes, stands and goes by a piece's own motion, and the pictures and films in it.
import { make } from "../house/elements.js";

// frames: its own, or the piece's
export function arrive(element, { in: usual, in_ms: duration, easing }, frames = usual) {
  if (frames.length > 0 && duration > 0) element.animate(frames, { duration, easing, fill: "both" });
}

export function depart(element, { out: usual, out_ms: duration, easing }, frames = usual) {
  if (frames.length === 0 || duration <= 0) return element.remove();
  element.animate(frames, { duration, easing, fill: "both" }).onfinish = () => element.remove();
}

// What does not come leaves no hole.
function seen(element, className, values) {
  element.className = className;
  element.addEventListener("error", () => element.remove(), { once: true });
  return Object.assign(element, values);
}

// The largest that is made of a picture.
export const pictureOf = (className, id) => seen(make("img", ""), className, { alt: "", src: `/pictures/${id}-4.webp`, decoding: "async" });

// Silent, until this page is the one that is heard.
export function filmOf(className, id, card, loop = false) {
  const video = seen(make("video", ""), className, { src: `/films/${id}.webm`, muted: true, playsInline: true, autoplay: true, loop });
  video.dataset.alert = card;
  return video;
}

export const grouped = (number) => String(number).replace(/\B(?=(\d{3})+(?!\d))/g, " ");
