import { follow } from "../house/desk.js";
import { keys } from "../house/keys.js";
import { LinkCard } from "./link_card.js";

const cards = new Map(
  [...document.querySelectorAll("[data-stage]")].map((element) => [Number(element.dataset.stage), new LinkCard(element)]),
);

follow((show) => {
  for (const stage of show.stages) cards.get(stage.id)?.tell(stage);
});

keys({ t: ["Send a test to the first link", () => cards.values().next().value?.test()] });
