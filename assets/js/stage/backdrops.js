// The picture behind the stage, in the editor only: one that ships, or the host's own.
import { make } from "../house/elements.js";
import { attempt, send } from "../house/send.js";
import { upload } from "./files.js";

export function backdrops(here) {
  const list = document.querySelector("#backdrops");
  const input = document.querySelector("#backdrop-files");
  const box = document.querySelector("#backdrop-box");
  const choose = (backdrop) => attempt(() => send(here("backdrop"), { backdrop }));
  list.addEventListener("change", (event) => choose(event.target.value));

  async function take(files) {
    const made = await upload("backdrop", files);
    for (const { id, name } of made) list.append(choiceOf(`file:${id}`, name));
    if (made.length > 0) choose(`file:${made.at(-1).id}`);
  }
  input.addEventListener("change", async () => {
    const files = [...input.files];
    input.value = "";
    await take(files);
  });
  box.addEventListener("dragover", (event) => event.preventDefault());
  box.addEventListener("drop", (event) => {
    event.preventDefault();
    take([...event.dataTransfer.files]);
  });
}

function choiceOf(value, words) {
  document.querySelector(`#backdrops [value="${value}"]`)?.parentElement.remove();
  const radio = make("input");
  Object.assign(radio, { type: "radio", name: "backdrop", value });
  return make("label", "", radio, words);
}

export function showBackdrop(backdrop) {
  const frame = document.querySelector("#frame");
  if (frame.dataset.backdrop === backdrop && frame.dataset.shown) return;
  frame.dataset.shown = "1";
  frame.dataset.backdrop = backdrop;
  frame.style.backgroundImage = backdrop.startsWith("file:") ? `url("/pictures/${backdrop.slice(5)}-4.webp")` : "";
  const radio = document.querySelector(`#backdrops [value="${backdrop}"]`);
  if (radio) radio.checked = true;
}
