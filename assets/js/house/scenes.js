// Small moving pictures beside what they are about: each a handful of shapes, and how they move from 0 to 1 of one round.
const NS = "http://www.w3.org/2000/svg";
const ROUND_MS = 5000;
// Where it stands still for whoever wants nothing to move.
const STILL_AT = 0.62;
export const SIZE = [260, 104];

const shape = (name, values, tone) => ({ name, values, tone, moves: [] });
const box = (x, y, width, height, tone = "ink", round = 4) => shape("rect", { x, y, width, height, rx: round }, tone);
const dot = (cx, cy, r = 6, tone = "a") => shape("circle", { cx, cy, r }, tone);
const path = (d, tone = "faint") => shape("path", { d }, tone);
const words = (x, y, text, tone = "ink") => ({ ...shape("text", { x, y }, tone), text });
// What it goes through: [when, how far right, how far down, how opaque, how large]
const moved = (one, ...moves) => ({ ...one, moves });
const comes = (one, at, until = 0.94) => moved(one, [0, 0, 0, 0], [at, 0, 0, 0], [at + 0.05, 0, 0, 1], [until, 0, 0, 1], [1, 0, 0, 0]);
// The broadcast picture.
const picture = (x = 150, width = 96) => box(x, 16, width, 72, "frame", 6);
const said = (x, y, width, tone = "ink") => box(x, y, width, 8, tone);

const flies = (one, at, dx, dy) => moved(one, [0, 0, 0, 1], [at, 0, 0, 1], [at + 0.28, dx, dy, 1], [0.94, dx, dy, 1], [1, dx, dy, 0]);

const slides = (one) =>
  moved(one, [0, -150, 0, 0], [0.12, -150, 0, 1], [0.3, 0, 0, 1], [0.8, 0, 0, 1], [0.92, -150, 0, 0], [1, -150, 0, 0]);

const SCENES = {
  merge: () => [
    picture(),
    flies(dot(30, 26, 7, "b"), 0.05, 134, 10),
    flies(box(23, 46, 14, 14, "d", 2), 0.25, 134, 2),
    flies(path("M22 88l8-14 8 14z", "c"), 0.45, 134, -12),
    comes(said(180, 32, 50), 0.33),
    comes(said(180, 51, 34), 0.53),
    comes(said(180, 70, 44), 0.73),
  ],
  gate: () => [
    picture(176, 76),
    box(126, 10, 6, 84, "a"),
    flies(said(20, 28, 56), 0.05, 170, 0),
    moved(said(20, 50, 70, "e"), [0, 0, 0, 1], [0.2, 0, 0, 1], [0.36, 34, 0, 1], [0.56, 34, 46, 0], [1, 34, 46, 0]),
    flies(said(20, 72, 44), 0.5, 170, 0),
  ],
  hold: () => [
    picture(176, 76),
    dot(130, 52, 15, "frame"),
    moved(dot(130, 52, 14, "a"), [0, 0, 0, 1, 0.05], [0.15, 0, 0, 1, 0.05], [0.6, 0, 0, 1, 1], [0.66, 0, 0, 0, 1], [1, 0, 0, 0, 1]),
    moved(said(18, 48, 60), [0, 0, 0, 1], [0.15, 20, 0, 1], [0.6, 20, 0, 1], [0.8, 166, 0, 1], [0.94, 166, 0, 1], [1, 166, 0, 0]),
  ],
  try: () => [
    box(20, 20, 220, 26, "frame", 6),
    comes(said(32, 29, 90), 0.1),
    comes(path("M32 74l8 8 14-16", "mark"), 0.4),
    comes(said(66, 70, 120, "c"), 0.4),
  ],
  replay: () => [
    ...[20, 40, 60, 80].map((y, index) => comes(said(60, y, [110, 70, 130, 90][index], index === 2 ? "e" : "ink"), 0.1 + index * 0.15)),
    ...[20, 40, 60, 80].map((y, index) => comes(dot(40, y + 4, 5, index === 2 ? "e" : "c"), 0.14 + index * 0.15)),
  ],
  left: () => [
    dot(60, 42, 14, "b"),
    path("M36 88a24 22 0 0 1 48 0z", "b"),
    moved(said(110, 46, 100), [0, 0, 0, 0], [0.1, 0, 0, 1], [0.35, 0, 0, 1], [0.5, 0, 0, 0], [1, 0, 0, 0]),
    comes(path("M34 20l54 70", "cut"), 0.35),
  ],
  help: () => [
    picture(),
    moved(said(166, 34, 60), [0, 0, 0, 1], [0.55, 0, 0, 1], [0.62, 0, 0, 0], [1, 0, 0, 0]),
    said(166, 58, 44),
    dot(52, 40, 12, "c"),
    path("M32 82a20 20 0 0 1 40 0z", "c"),
    moved(
      dot(84, 60, 5, "a"),
      [0, 0, 0, 0],
      [0.15, 0, 0, 1],
      [0.5, 100, -22, 1],
      [0.58, 100, -22, 1, 1.8],
      [0.66, 100, -22, 0],
      [1, 100, -22, 0],
    ),
  ],
  log: () =>
    [0, 1, 2, 3, 4, 5].flatMap((index) => {
      const moves = [
        [0, 0, 40, 1],
        [1, 0, -40, 1],
      ];
      const y = 8 + index * 20;
      return [
        moved(dot(40, y + 4, 4, ["b", "c", "d"][index % 3]), ...moves),
        moved(said(56, y, [120, 80, 150, 100, 60, 130][index]), ...moves),
      ];
    }),
  code: () => [
    box(24, 34, 212, 36, "frame", 8),
    said(40, 48, 66),
    moved(words(118, 58, ":wren:"), [0, 0, 0, 1], [0.35, 0, 0, 1], [0.42, 0, 0, 0], [1, 0, 0, 0]),
    moved(
      dot(140, 52, 14, "a"),
      [0, 0, 0, 0, 0.2],
      [0.38, 0, 0, 0, 0.2],
      [0.5, 0, 0, 1, 1.15],
      [0.56, 0, 0, 1, 1],
      [0.94, 0, 0, 1, 1],
      [1, 0, 0, 0, 1],
    ),
    said(176, 48, 44),
  ],
  badge: () => [
    box(24, 34, 212, 36, "frame", 8),
    moved(box(40, 44, 16, 16, "faint", 4), [0, 0, 0, 1], [0.4, 0, 0, 1], [0.5, 0, 0, 0], [1, 0, 0, 0]),
    moved(
      path("M48 42l3 6 7 1-5 5 1 7-6-4-6 4 1-7-5-5 7-1z", "a"),
      [0, 0, -30, 0],
      [0.3, 0, -30, 1],
      [0.5, 0, 0, 1],
      [0.94, 0, 0, 1],
      [1, 0, 0, 0],
    ),
    said(70, 48, 130),
  ],
  talk: () => [
    moved(
      dot(70, 52, 30, "c"),
      [0, 0, 0, 0.1, 0.8],
      [0.2, 0, 0, 0.6, 1],
      [0.35, 0, 0, 0.3, 0.9],
      [0.5, 0, 0, 0.7, 1.05],
      [0.62, 0, 0, 0, 0.8],
      [1, 0, 0, 0, 0.8],
    ),
    dot(70, 52, 22, "b"),
    moved(dot(180, 52, 30, "c"), [0, 0, 0, 0, 0.8], [0.62, 0, 0, 0, 0.8], [0.75, 0, 0, 0.6, 1], [0.88, 0, 0, 0.3, 0.9], [1, 0, 0, 0, 0.8]),
    dot(180, 52, 22, "d"),
  ],
  letter: () => [
    picture(176, 76),
    moved(
      path("M20 40h44v28h-44zM20 40l22 16 22-16", "line"),
      [0, 0, 0, 1],
      [0.1, 0, 0, 1],
      [0.45, 108, 0, 1],
      [0.52, 108, 0, 0],
      [1, 108, 0, 0],
    ),
    comes(said(190, 48, 46), 0.5),
  ],
  braces: () => [
    comes(words(20, 34, "{ nick: ann,"), 0.02),
    comes(words(20, 56, "  text: hello }"), 0.12),
    comes(path("M126 44h22m-7-7 7 7-7 7", "line"), 0.35),
    picture(160, 88),
    comes(said(172, 46, 26, "a"), 0.5),
    comes(said(203, 46, 34), 0.56),
  ],
  score: () => [
    ...[0, 1, 2].map((index) =>
      comes(box(30 + index * 44, 20 + index * 26, [180, 120, 70][index], 16, ["a", "b", "c"][index]), 0.05 + index * 0.18),
    ),
    moved(box(30, 12, 2, 82, "ink", 0), [0, 0, 0, 1], [0.9, 190, 0, 1], [1, 190, 0, 0]),
  ],
  queue: () => [
    picture(20, 96),
    ...[0, 1, 2].map((index) => {
      const at = index * 0.3;
      const way = -114 - index * 44;
      return moved(
        box(146 + index * 44, 40, 36, 24, ["a", "b", "c"][index], 5),
        [0, 0, 0, 1],
        [Math.max(at, 0.02), -index * 44, 0, 1],
        [at + 0.1, way, 0, 1],
        [at + 0.26, way, 0, 1],
        [at + 0.32, way, 0, 0],
        [1, way, 0, 0],
      );
    }),
  ],
  wave: () =>
    [...Array(18).keys()].map((index) => {
      const tall = 12 + Math.abs(Math.sin(index * 1.3)) * 52;
      return comes(box(24 + index * 12, 52 - tall / 2, 6, tall, "c", 3), 0.02 + index * 0.035);
    }),
  card: () => [picture(20, 220), ...[box(36, 46, 120, 32, "plate", 6), dot(56, 62, 10, "a"), said(74, 58, 66)].map(slides)],
  draft: () => [
    picture(14, 104),
    picture(142, 104),
    moved(box(28, 62, 40, 16, "a"), [0, 0, 0, 1], [0.15, 0, 0, 1], [0.4, 34, -34, 1], [1, 34, -34, 1]),
    moved(box(156, 62, 40, 16, "a"), [0, 0, 0, 1], [0.62, 0, 0, 1], [0.66, 34, -34, 1], [1, 34, -34, 1]),
    moved(
      path("M122 52h12m-5-5 5 5-5 5", "line"),
      [0, 0, 0, 0.2],
      [0.5, 0, 0, 0.2],
      [0.58, 0, 0, 1],
      [0.74, 0, 0, 1],
      [0.8, 0, 0, 0.2],
      [1, 0, 0, 0.2],
    ),
  ],
  link: () => [
    box(16, 42, 92, 20, "frame", 10),
    moved(said(26, 48, 70, "b"), [0, 0, 0, 1], [0.15, 0, 0, 1], [0.45, 138, 0, 1], [0.52, 138, 0, 0], [1, 138, 0, 0]),
    picture(150, 96),
    comes(said(162, 50, 50), 0.55),
    comes(said(162, 68, 34), 0.65),
  ],
  times: () => [
    box(18, 76, 40, 14, "frame", 3),
    picture(176, 70),
    flies(said(24, 80, 26), 0.1, 164, -32),
    moved(box(60, 94, 116, 4, "a", 2), [0, 0, 0, 0], [0.1, 0, 0, 1], [0.4, 0, 0, 1], [0.94, 0, 0, 1], [1, 0, 0, 0]),
  ],
  checks: () =>
    [0, 1, 2].flatMap((index) => [
      said(70, 24 + index * 26, [120, 84, 140][index]),
      comes(path(`M40 ${28 + index * 26}l6 6 11-12`, "mark"), 0.12 + index * 0.22),
    ]),
  report: () => [
    path("M24 90h212", "line"),
    ...[18, 30, 24, 52, 66, 44, 28, 36].map((tall, index) =>
      comes(box(32 + index * 25, 90 - tall, 15, tall, index === 4 ? "a" : "b", 3), 0.05 + index * 0.07),
    ),
  ],
};

export const NAMES = Object.keys(SCENES);

function element({ name, values, tone, text }) {
  const drawn = document.createElementNS(NS, name);
  for (const [key, value] of Object.entries(values)) drawn.setAttribute(key, value);
  drawn.setAttribute("class", `tone-${tone}`);
  if (text) drawn.textContent = text;
  return drawn;
}

const frames = (moves) =>
  moves.map(([offset, x, y, opacity, scale = 1]) => ({ offset, opacity, transform: `translate(${x}px, ${y}px) scale(${scale})` }));

// name: of NAMES. still: where it does not move
export function scene(name, still = matchMedia("(prefers-reduced-motion: reduce)").matches) {
  const drawn = document.createElementNS(NS, "svg");
  drawn.setAttribute("viewBox", `0 0 ${SIZE.join(" ")}`);
  drawn.setAttribute("class", "scene");
  drawn.setAttribute("aria-hidden", "true");
  for (const one of SCENES[name]?.() ?? []) {
    const part = element(one);
    drawn.append(part);
    if (one.moves.length === 0) continue;
    const way = part.animate(frames(one.moves), { duration: ROUND_MS, iterations: Number.POSITIVE_INFINITY, easing: "linear" });
    if (!still) continue;
    way.pause();
    way.currentTime = ROUND_MS * STILL_AT;
  }
  return drawn;
}
