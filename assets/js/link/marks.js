// The feeds' marks: told apart by shape and colour together.
const SVG = "http://www.w3.org/2000/svg";
const SHAPES = {
  circle: "M10 1a9 9 0 1 1 0 18a9 9 0 1 1 0-18z",
  diamond: "M10 0 20 10 10 20 0 10z",
  triangle: "M10 1 20 19H0z",
  square: "M2 2h16v16H2z",
  drop: "M10 0c5 6 7 9 7 12a7 7 0 0 1-14 0c0-3 2-6 7-12z",
  hexagon: "M5 1.4h10L20 10l-5 8.6H5L0 10z",
  ring: "M10 0a10 10 0 1 1 0 20a10 10 0 1 1 0-20zm0 5a5 5 0 1 0 0 10a5 5 0 1 0 0-10z",
  cross: "M7 1h6v6h6v6h-6v6H7v-6H1V7h6z",
};

export function markOf([shape, colour]) {
  const svg = document.createElementNS(SVG, "svg");
  const path = document.createElementNS(SVG, "path");
  svg.setAttribute("viewBox", "0 0 20 20");
  svg.setAttribute("class", "mark");
  svg.setAttribute("aria-hidden", "true");
  path.setAttribute("d", SHAPES[shape] ?? SHAPES.circle);
  path.setAttribute("fill", colour);
  svg.style.setProperty("--mark", colour);
  svg.append(path);
  return svg;
}
