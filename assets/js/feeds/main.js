import { follow } from "../house/desk.js";
import { keys } from "../house/keys.js";
import { count } from "../house/words.js";
import { say } from "../house/messages.js";
import { AddForm } from "./add.js";
import { tellAnswers } from "./answer.js";
import { Lane } from "./lane.js";

const lanes = new Map();
const root = document.querySelector("#lanes");
const add = new AddForm();

follow((show) => {
  const here = new Set(show.feeds.map((feed) => feed.id));
  for (const [id, lane] of lanes) {
    if (here.has(id)) continue;
    lane.element.remove();
    lanes.delete(id);
  }
  for (const feed of show.feeds) {
    if (!lanes.has(feed.id)) {
      lanes.set(feed.id, new Lane(feed));
      root.append(lanes.get(feed.id).element);
    }
    lanes.get(feed.id).tell(feed, show.now);
  }
  tellAnswers(show);
  document.querySelector("#empty").hidden = show.feeds.length > 0 || add.open;
  document.querySelector("#summary").textContent =
    show.feeds.length === 0
      ? ""
      : `${count(show.feeds.length, "chat becomes", "chats become")} one stream: ${show.figures.rate} a minute just now.`;
});

const { said } = document.querySelector("main").dataset;
if (said) say(said);

// Led here to connect one of them.
const wanted = new URLSearchParams(location.search).get("connect");
if (wanted) add.showPlatform(wanted);

keys({ a: ["Answer", () => document.querySelector("#answer-form").elements.text.focus()], c: ["Connect a chat", () => add.show()] });
