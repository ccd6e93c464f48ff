import { follow } from "../house/desk.js";
import { keys } from "../house/keys.js";
import { Checks } from "./checks.js";
import { LinkCard } from "./link_card.js";
import { Times } from "./times.js";

const cards = new Map(
  [...document.querySelectorAll("[data-stage]")].map((element) => [Number(element.dataset.stage), new LinkCard(element)]),
);

const checks = new Checks(document.querySelector("#checks"));
checks.follow();

follow((show) => {
  checks.noticed(show);
  for (const stage of show.stages) cards.get(stage.id)?.tell(stage);
});

new Times(document.querySelector("#times")).follow();

keys({ t: ["Send a test to the first link", () => cards.values().next().value?.test()] });
