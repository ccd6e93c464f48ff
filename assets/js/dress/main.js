import { follow } from "../house/desk.js";
import { keys } from "../house/keys.js";
import { get } from "../house/send.js";
import { count } from "../house/words.js";
import { Badges } from "./badges.js";
import { drops } from "./imports.js";
import { Phrases } from "./phrases.js";
import { Shelves } from "./shelves.js";
import { Trial } from "./trial.js";

let told = "";

const sum = (shelves) => shelves.reduce((all, shelf) => all + shelf.count, 0);

async function refresh() {
  const sheet = await get("/dress/sheet");
  const text = JSON.stringify(sheet);
  if (text === told) return;
  told = text;
  shelves.show(sheet);
  phrases.show(sheet);
  badges.show(sheet);
  trial.show(sheet);
  const own = sheet.shelves.filter((shelf) => !shelf.feed);
  const sent = sum(sheet.shelves.filter((shelf) => shelf.feed));
  document.querySelector("#summary").textContent = [
    `${count(sum(own), "emote")} on ${count(own.length, "shelf", "shelves")}`,
    sent > 0 ? `${sent} that platforms send along` : "",
  ]
    .filter(Boolean)
    .join(", and ");
}

const shelves = new Shelves(refresh);
const phrases = new Phrases(refresh);
const badges = new Badges(refresh);
const trial = new Trial();
drops(refresh);
refresh();

// What platforms send along appears by itself.
let seen = 0;
let soon = null;
follow(({ figures }) => {
  if (figures.in === seen || document.hidden) return;
  seen = figures.in;
  if (soon) return;
  soon = setTimeout(() => {
    soon = null;
    refresh().catch(() => {});
  }, 3000);
});

keys({
  t: ["Try a line", () => document.querySelector("#try-text").focus()],
  u: ["Add pictures or a pack", () => document.querySelector("#add-files").click()],
});
