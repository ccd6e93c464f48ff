// What is dropped on an alerts piece: its cue plays it.
import { drops } from "../cues/drops.js";
import { say } from "../house/messages.js";
import { attempt, get, sendJson } from "../house/send.js";

const KIND = "alerts";

// hands: of the frame; pieceOf(id): the piece as the draft has it
export function alertDrops(hands, pieceOf) {
  let cue = null;
  const piece = ({ target }) => pieceOf(target.closest?.(".hand")?.dataset.piece);
  const done = () => say(`“${cue.name}” plays it. The draft shows it.`);
  drops(hands, {
    takes: (event) => piece(event)?.kind === KIND,
    async chosen(event) {
      cue = await attempt(() => get(`/dress/cues/shown?kinds=${piece(event).kinds.join(",")}`));
      return cue?.id;
    },
    taken: done,
    words: async (words, id) => words && (await attempt(() => sendJson(`/dress/cues/cues/${id}`, { words }))) && done(),
  });
}
