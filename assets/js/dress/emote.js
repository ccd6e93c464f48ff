// One emote on a shelf: its picture, its code, and what can be changed about it.
import { button, make } from "../house/elements.js";
import { say } from "../house/messages.js";
import { attempt, send } from "../house/send.js";
import { count } from "../house/words.js";
import { sourceOf } from "../link/dress.js";
import { ask, closeSheet } from "./sheet.js";

const SIZE_PX = 42;

function notes(emote) {
  const found = [`used ${count(emote.used, "time")}`];
  if (emote.beaten) found.push("a shelf above has the same code and wins");
  if (emote.overlay) found.push("laid over the emote before it");
  return found.join(", ");
}

export function emoteButton(emote, shelf, changed) {
  const image = make("img");
  Object.assign(image, { src: sourceOf(emote.picture, SIZE_PX), alt: "", loading: "lazy", height: SIZE_PX });
  const made = make("button", "emote-button", image, make("span", "", emote.code));
  made.type = "button";
  made.classList.toggle("beaten", emote.beaten);
  made.classList.toggle("unused", emote.used === 0);
  made.title = notes(emote);
  if (shelf.feed) made.disabled = true;
  else made.addEventListener("click", () => edit(emote, changed));
  return made;
}

function edit(emote, changed) {
  ask({
    title: emote.code,
    about: `Used ${count(emote.used, "time")}.`,
    button: "Keep it so",
    fields: [
      { name: "code", label: "Code", value: emote.code },
      { name: "any_case", label: "Counts in any case", type: "checkbox", checked: emote.any_case },
      { name: "overlay", label: "Laid over the emote before it", type: "checkbox", checked: emote.overlay },
    ],
    extra: [
      make(
        "div",
        "wide",
        button("Take it away", "trash-2", () => remove(emote, changed), "button"),
      ),
    ],
    work: async (values) => {
      for (const name of ["any_case", "overlay"]) if (!values.has(name)) values.set(name, "0");
      await send(`/dress/emotes/${emote.id}`, values);
      changed();
    },
  });
}

async function remove(emote, changed) {
  closeSheet();
  const path = `/dress/emotes/${emote.id}`;
  if (await attempt(() => send(`${path}/remove`)))
    say(`${emote.code} is taken away.`, { undo: () => attempt(() => send(`${path}/put-back`)).then(changed) });
  changed();
}
