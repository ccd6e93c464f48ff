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

// chosen(): id of the cue that is shown; taken(sheet): something came; words(text)
export function drops(root, { chosen, taken, words }) {
  const kinds = (event) => event.dataTransfer?.types ?? [];
  root.addEventListener("dragover", (event) => {
    if (!kinds(event).includes("Files") && !kinds(event).includes("text/plain")) return;
    event.preventDefault();
    root.classList.add("over");
  });
  for (const name of ["dragleave", "drop"]) root.addEventListener(name, () => root.classList.remove("over"));
  root.addEventListener("drop", async (event) => {
    event.preventDefault();
    const cue = chosen();
    const { files } = event.dataTransfer;
    if (files.length === 0) return words(event.dataTransfer.getData("text/plain").trim().slice(0, 300));
    for (const file of files) {
      const sheet = await bring(cue, file);
      if (sheet) taken(sheet);
    }
  });
}
