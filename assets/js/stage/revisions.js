// What was put on air before: listed, compared in words, restored.
import { button, make } from "../house/elements.js";
import { say } from "../house/messages.js";
import { attempt, get, send } from "../house/send.js";

export function revisions(here, undo) {
  const dialog = document.querySelector("#revisions");
  const list = document.querySelector("#revision-list");

  async function open() {
    const told = await attempt(() => get(here("revisions")));
    if (!told) return;
    list.replaceChildren(...told.revisions.map(rowOf));
    if (told.revisions.length === 0) list.append(make("p", "said", "None yet. The first Put on air makes one."));
    dialog.showModal();
  }

  function rowOf({ number, at, by, on_air: onAir }) {
    const when = new Date(at).toLocaleString([], { dateStyle: "medium", timeStyle: "short" });
    const words = make("ul", "said");
    const compare = button("Compare", null, async () => {
      const told = await attempt(() => get(here(`revisions/${number}`)));
      if (!told) return;
      const changes = told.changes.length > 0 ? told.changes : ["It is the same as the draft."];
      words.replaceChildren(...changes.map((change) => make("li", "", change)));
    });
    const restore = button("Restore", "history", async () => {
      const done = await attempt(() => send(here(`revisions/${number}/restore`)));
      if (!done) return;
      dialog.close();
      say(`Revision ${number} is the draft now. Viewers still see what they saw.`, { undo });
    });
    const head = make("div", "revision-head", make("b", "figure", `r${number}`), make("span", "said", `${when}${by ? ` · ${by}` : ""}`));
    if (onAir) head.append(make("span", "chip live", "on air"));
    head.append(compare, restore);
    return make("div", "revision", head, words);
  }

  document.querySelector("#stage-size").addEventListener("click", open);
  return open;
}
