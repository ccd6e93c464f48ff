// The host's own faces: loaded from Bavard when a piece's style names one.
const NAME = /own-([0-9a-f]{32})/g;
const known = new Set();

export function loadOwnFaces(text) {
  for (const [family, id] of text.matchAll(NAME)) {
    if (known.has(id)) continue;
    known.add(id);
    const face = new FontFace(family, `url("/fonts/${id}.woff2")`, { weight: "100 900" });
    document.fonts.add(face);
    face.load().catch(() => {});
  }
}
