// What is dropped on a cue's picture: a picture, a film, a sound or words, brought on the spot.
import { say } from "../house/messages.js";
import { attempt, sendFiles } from "../house/send.js";

const KINDS = { image: "picture", video: "film", audio: "sound" };

async function bring(cue, file) {
  const kind = KINDS[file.type.split("/")[0]];
  if (!kind) return say(`“${file.name}” is no picture, film or sound.`, { bad: true });
  const form = new FormData();
  form.append("file", file);
  if (kind !== "picture") form.append("kind", kind);
  return attempt(() => sendFiles(`/dress/cues/cues/${cue}/${kind === "picture" ? "picture" : "files"}`, form));
}

// chosen(event): the cue that is meant, its id or a promise of it; takes(event): whether anything is meant there; taken(sheet): something
// came; words(text, cue)
export function drops(root, { chosen, taken, words, takes = () => true }) {
  const kinds = (event) => event.dataTransfer?.types ?? [];
  root.addEventListener("dragover", (event) => {
    const meant = takes(event) && (kinds(event).includes("Files") || kinds(event).includes("text/plain"));
    root.classList.toggle("over", meant);
    if (meant) event.preventDefault();
  });
  for (const name of ["dragleave", "drop"]) root.addEventListener(name, () => root.classList.remove("over"));
  root.addEventListener("drop", async (event) => {
    if (!takes(event)) return;
    event.preventDefault();
    const files = [...event.dataTransfer.files];
    const text = event.dataTransfer.getData("text/plain").trim().slice(0, 300);
    const cue = await chosen(event);
    if (!cue) return;
    if (files.length === 0) return words(text, cue);
    for (const file of files) {
      const sheet = await bring(cue, file);
      if (sheet) taken(sheet);
    }
  });
}
