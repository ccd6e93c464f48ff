// Emotes, badges and faces as pictures of ours: a page that draws never asks another host for anything.
const HEIGHTS = [
  [28, "1"],
  [56, "2"],
  [112, "4"],
  [320, "8"],
];

// The size that is sharp at this height, or its still.
export function sourceOf(picture, height, still = false) {
  if (still) return `/pictures/${picture}-still.webp`;
  const wanted = height * devicePixelRatio;
  const [, size] = HEIGHTS.find(([px]) => px >= wanted) ?? HEIGHTS.at(-1);
  return `/pictures/${picture}-${size}.webp`;
}

function imageOf(picture, words, className, { height = 28, moves = false, still = false } = {}) {
  const image = document.createElement("img");
  image.className = className;
  image.alt = words;
  image.decoding = "async";
  image.dataset.picture = picture;
  if (moves) image.dataset.moves = "";
  image.src = sourceOf(picture, height, moves && still);
  return image;
}

// [kind, text, picture, ratio, moves, [text, picture] of what lies over it …]
export function emoteOf([, text, picture, ratio, moves, ...over], options) {
  const emote = document.createElement("span");
  emote.className = "emote";
  emote.title = text;
  const image = imageOf(picture, text, "", { ...options, moves: Boolean(moves) });
  if (ratio) image.style.aspectRatio = ratio;
  emote.append(image);
  for (const [words, above] of over) emote.append(imageOf(above, words, "over", options));
  return emote;
}

// [kind, words, picture or null, letter, colour]
export function badgeOf([kind, words, picture, letter, colour], options) {
  const badge = picture ? imageOf(picture, words, "badge", options) : document.createElement("span");
  badge.dataset.badge = kind;
  badge.title = words;
  if (picture) return badge;
  badge.className = "badge drawn";
  badge.textContent = letter;
  badge.style.setProperty("--badge", colour);
  return badge;
}

// [picture or null, the name's first letter]
export function faceOf([picture, letter], options) {
  const face = picture ? imageOf(picture, "", "avatar", options) : document.createElement("span");
  if (picture) return face;
  face.className = "avatar drawn";
  face.setAttribute("aria-hidden", "true");
  face.textContent = letter ?? "";
  return face;
}

// After another size, or once moving ones are to stand still.
export function redress(root, options) {
  for (const image of root.querySelectorAll("img[data-picture]"))
    image.src = sourceOf(image.dataset.picture, options.height, options.still && "moves" in image.dataset);
}
