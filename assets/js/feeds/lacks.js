// What has to be given before somebody can answer in a chat, and where.
import { make } from "../house/elements.js";
import { markOf } from "../link/marks.js";

const WORDS = { permission: "Give permission to answer in", again: "The permission ended; give it again for" };

function link(feed) {
  const made = make("a", "answer-lack", markOf(feed.mark), make("bdi", "", feed.name));
  made.href = `/feeds/permission?platform=${encodeURIComponent(feed.platform)}&feed=${feed.id}`;
  return made;
}

// box: that says it; feeds: those that lack something
export function tellLacks(box, feeds) {
  box.hidden = feeds.length === 0;
  const told = JSON.stringify(feeds.map(({ id, name, lacks }) => [id, name, lacks]));
  if (box.dataset.told === told) return;
  box.dataset.told = told;
  box.replaceChildren(
    ...Object.entries(WORDS).flatMap(([what, words]) => {
      const those = feeds.filter((feed) => feed.lacks === what);
      return those.length === 0 ? [] : [make("span", "answer-lacking", `${words}:`, ...those.map(link))];
    }),
  );
}
