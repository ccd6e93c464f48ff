// What has to be given before somebody can answer in a chat, and where.
import { make } from "../house/elements.js";
import { markOf } from "../link/marks.js";

const WORDS = { permission: "give permission", again: "its permission ended, give it again" };

function link(feed) {
  const made = make("a", "", make("bdi", "", feed.name), `: ${WORDS[feed.lacks]}`);
  made.href = `/feeds/permission?platform=${encodeURIComponent(feed.platform)}&feed=${feed.id}`;
  return make("span", "answer-lack", markOf(feed.mark), made);
}

// box: that says it; feeds: those that lack something; also: whether others can be answered in already
export function tellLacks(box, feeds, also) {
  box.hidden = feeds.length === 0;
  const told = JSON.stringify([also, feeds.map(({ id, name, lacks }) => [id, name, lacks])]);
  if (box.dataset.told === told) return;
  box.dataset.told = told;
  box.replaceChildren(also ? "To answer here too: " : "To answer from here: ", ...feeds.map(link));
}
