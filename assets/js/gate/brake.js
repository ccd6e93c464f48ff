// The brake: for emergencies, at once, with an end that is seen.
import { button } from "../house/elements.js";
import { attempt, sendJson } from "../house/send.js";
import { lasting } from "../house/words.js";

const KINDS = {
  hold_all: "Hold everything",
  off_picture: "Chat off the picture",
  roles_only: "Only people with a role",
  slow: "Slow down",
};

export class Brake {
  constructor() {
    const minutes = document.querySelector("#brake-minutes");
    const pace = document.querySelector("#brake-pace");
    const brakes = Object.entries(KINDS).map(([kind, words]) =>
      button(words, null, () => this.send({ kind, minutes: minutes.value, per_minute: pace.value }), "brake"),
    );
    document.querySelector("#brakes").append(...brakes);
    document.querySelector("#brake-off").addEventListener("click", () => this.send({ kind: "off" }));
  }

  send(values) {
    document.querySelector("#brake-row").open = false;
    return attempt(() => sendJson("/gate/brake", values));
  }

  tell(brake) {
    const box = document.querySelector("#brake-on");
    box.hidden = !brake;
    document.querySelector("#brake-row").hidden = Boolean(brake);
    if (!brake) return;
    document.querySelector("#brake-words").textContent =
      brake.kind === "slow"
        ? `At most ${brake.per_minute} lines a minute`
        : brake.kind === "roles_only"
          ? `Only lines by ${brake.roles.join(", ")}`
          : brake.words;
    document.querySelector("#brake-left").textContent =
      `By ${brake.by ?? "somebody"}; ${brake.left === null ? "until it is taken off" : `ends by itself in ${lasting(brake.left)}`}.`;
  }
}
