// One of the pictures that are there already.
import { make } from "../house/elements.js";
import { sourceOf } from "../link/dress.js";

const MOST = 120;

export function pictureChoice(shelves) {
  const pictures = new Map(shelves.flatMap((shelf) => shelf.emotes.map((emote) => [emote.picture, emote.code])));
  const choices = [...pictures].slice(0, MOST).map(([picture, code]) => {
    const input = make("input");
    Object.assign(input, { type: "radio", name: "picture", value: picture });
    input.setAttribute("aria-label", code);
    const image = make("img");
    Object.assign(image, { src: sourceOf(picture, 28), alt: "", height: 28, title: code });
    return make("label", "picture-choice", input, image);
  });
  return make("div", "wide picture-choices", ...choices);
}
