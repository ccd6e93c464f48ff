// Words that are longer than their piece has room for grow smaller, down to a point.
const SMALLEST = 0.4;
const STEP = 0.9;

// tooLarge(): whether it is, as it stands now
export function fit(box, tooLarge) {
  box.style.fontSize = "";
  for (let size = STEP; size > SMALLEST && tooLarge(); size *= STEP) box.style.fontSize = `${size}em`;
}

// Of what an element has inside its padding.
export function innerHeight(element) {
  const style = getComputedStyle(element);
  return element.clientHeight - (Number.parseFloat(style.paddingTop) || 0) - (Number.parseFloat(style.paddingBottom) || 0);
}
