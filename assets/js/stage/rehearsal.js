// Made-up traffic in this stage's draft.
import { attempt, send } from "../house/send.js";

export function rehearsal(here) {
  const button = document.querySelector("#rehearse");
  const scripts = document.querySelector("#scripts");
  const words = document.querySelector("#rehearsing");
  const quiet = words.textContent;
  let running = null;

  const chosen = () => scripts.querySelector("input:checked").value;
  const play = (script) => attempt(() => send(here("rehearse"), { script }));

  button.addEventListener("click", () => play(running ? "" : chosen()));
  scripts.addEventListener("change", () => running && play(chosen()));
  document.querySelector("#clear").addEventListener("click", () => attempt(() => send(here("clear"))));

  return ({ rehearsing }) => {
    if (running === rehearsing) return;
    running = rehearsing;
    button.querySelector("span").textContent = running ? "Stop" : "Rehearse";
    button.querySelector("use").setAttribute("href", `/assets/vendor/lucide/icons.svg#${running ? "square" : "play"}`);
    const radio = scripts.querySelector(`[value="${running}"]`);
    if (radio) radio.checked = true;
    words.textContent = running ? radio.parentElement.title : quiet;
  };
}
