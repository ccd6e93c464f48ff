// What voices are drawn with: faces and marks.
import { make, svg } from "../house/elements.js";

// [what it says, its drawing on 24 by 24]
const MARKS = {
  muted: ["muted", "M9 5a3 3 0 0 1 6 0v5m-1 4a3 3 0 0 1-5-2V9M5 11a7 7 0 0 0 11 5.7M19 11a7 7 0 0 1-.6 2.8M12 18v3M3 3l18 18"],
  deafened: ["hears nothing", "M4 14v-2a8 8 0 0 1 12.6-6.5M20 14v-2M4 14h3v6H4zM20 14v6h-3M3 3l18 18"],
  away: ["away", "M20 14A8 8 0 1 1 10 4a6.5 6.5 0 0 0 10 10z"],
  sharing: ["shows their screen", "M3 4h18v12H3zM8 20h8M12 16v4"],
};

// The largest that is made of a picture.
const largest = (picture) => `/pictures/${picture}-4.webp`;

// Their picture, or the first letter of their name on their colour where there is none or it does not come.
export function faceOf({ f, a, n }) {
  const drawn = make("span", "voice-picture drawn", a ?? "");
  drawn.title = n;
  if (!f) return drawn;
  const image = make("img", "voice-picture");
  image.alt = "";
  image.decoding = "async";
  image.src = largest(f);
  image.addEventListener("error", () => image.replaceWith(drawn), { once: true });
  return image;
}

export function marksOf(box, marks) {
  const drawn = marks.join();
  if (box.dataset.drawn === drawn) return;
  box.dataset.drawn = drawn;
  box.replaceChildren(
    ...marks
      .filter((mark) => MARKS[mark])
      .map((mark) => {
        const made = svg("svg", { viewBox: "0 0 24 24", class: "voice-mark", role: "img", "aria-label": MARKS[mark][0] });
        made.dataset.mark = mark;
        made.append(svg("path", { d: MARKS[mark][1] }));
        return made;
      }),
  );
  box.hidden = marks.length === 0;
}
