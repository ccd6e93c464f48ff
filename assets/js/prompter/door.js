// What the prompter asks of the server, whichever way it was opened.
import { say } from "../house/messages.js";
import { attempt, get, sendJson } from "../house/send.js";

export const setup = JSON.parse(document.body.dataset.setup);

export const ask = (path) => get(`${setup.base}${path}`);

// A deed: what it did is told to everybody at once, so nothing is drawn here; it can be taken back at once.
export async function act(what, values = {}, words = null) {
  if (!setup.acts) return say("This prompter is for reading only.", { bad: true });
  const answer = await attempt(() => sendJson(`${setup.base}/act`, { do: what, ...values }));
  if (answer && words) say(words, { undo: answer.deed ? () => act("undo", { deed: answer.deed }) : undefined });
  return answer;
}

export const answer = (text, feeds) => sendJson(`${setup.base}/answer`, { text, feeds });
