// Boxes that are moved and sized by hand.
export const SMALLEST_PX = 16;
export const place = ({ x, y, width, height }) => ({ x, y, width, height });

export function around(boxes) {
  const x = Math.min(...boxes.map((box) => box.x));
  const y = Math.min(...boxes.map((box) => box.y));
  const right = Math.max(...boxes.map((box) => box.x + box.width));
  const bottom = Math.max(...boxes.map((box) => box.y + box.height));
  return { x, y, width: right - x, height: bottom - y };
}

// Only what this side changes, so that nothing else that is on its way is undone.
export function sized(before, side, dx, dy, keep) {
  const now = {};
  if (side.includes("e")) now.width = Math.max(SMALLEST_PX, before.width + dx);
  if (side.includes("s")) now.height = Math.max(SMALLEST_PX, before.height + dy);
  if (side.includes("w")) now.width = Math.max(SMALLEST_PX, before.width - dx);
  if (side.includes("n")) now.height = Math.max(SMALLEST_PX, before.height - dy);
  if (keep) proportioned(before, now);
  if (side.includes("w")) now.x = before.x + before.width - now.width;
  if (side.includes("n")) now.y = before.y + before.height - now.height;
  return now;
}

// The side that was pulled further decides.
function proportioned(before, now) {
  const ratio = before.width / before.height;
  const across = now.width === undefined ? 0 : now.width / before.width;
  const down = now.height === undefined ? 0 : now.height / before.height;
  const grown = Math.abs(across - 1) >= Math.abs(down - 1) && across > 0 ? across : down || across;
  now.width = Math.max(SMALLEST_PX, Math.round(before.width * grown));
  now.height = Math.max(SMALLEST_PX, Math.round(now.width / ratio));
}

// Which edges of a box a side moves, for snapping.
export function moving(side) {
  if (!side) return { x: [0, 0.5, 1], y: [0, 0.5, 1] };
  const part = (begin, end) => (side.includes(begin) ? [0] : side.includes(end) ? [1] : []);
  return { x: part("w", "e"), y: part("n", "s") };
}
