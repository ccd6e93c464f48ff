import { fragmentsOf } from "../link/line.js";
import { follow } from "../house/desk.js";
import { make } from "../house/elements.js";
import { keys } from "../house/keys.js";
import { say } from "../house/messages.js";
import { Refused, send } from "../house/send.js";
import { clock } from "../house/words.js";

const MOST_ROWS = 14;
const form = document.querySelector("#gate-form");
const error = document.querySelector("#gate-error");
const list = document.querySelector("#kept-off");

form.addEventListener("submit", (event) => event.preventDefault());
form.addEventListener("change", async () => {
  error.hidden = true;
  try {
    await send("/gate/", new FormData(form));
    say("Counts from now on.");
  } catch (refused) {
    if (!(refused instanceof Refused)) throw refused;
    error.hidden = false;
    error.textContent = refused.message;
  }
});

function row(card) {
  const text = make("span", "text", ...fragmentsOf(card.f));
  text.dir = "auto";
  return make("div", "kept-off-line", make("time", "", clock(card.t)), make("bdi", "", card.n), text, make("span", "chip off", card.off));
}

follow((show, lines) => {
  const { in: came, off } = show.figures;
  document.querySelector("#hour").textContent = `Last hour: ${came} in, ${came - off} through`;
  for (const [, card] of lines) {
    if (!card.off) continue;
    document.querySelector("#none-yet")?.remove();
    list.prepend(row(card));
    while (list.children.length > MOST_ROWS) list.lastElementChild.remove();
  }
});

keys({});
