// The people who are left out: who, where, until when.
import { button, make } from "../house/elements.js";
import { attempt, get, send } from "../house/send.js";
import { clock, count, day } from "../house/words.js";

export class LeftOut {
  constructor(feeds) {
    this.feeds = feeds;
    this.list = document.querySelector("#left-out-list");
    const form = document.querySelector("#left-out-form");
    document
      .querySelector("#left-out-feed")
      .append(new Option("on every chat", ""), ...feeds.map((feed) => new Option(`on ${feed.name}`, feed.id)));
    form.addEventListener("submit", (event) => {
      event.preventDefault();
      attempt(async () => {
        await send("/gate/left-out", new FormData(form));
        form.reset();
        await this.load();
      });
    });
    attempt(() => this.load());
  }

  // how many there are, as the show tells it: others may have changed it
  tell(number) {
    if (number !== this.number) attempt(() => this.load());
  }

  async load() {
    const { people } = await get("/gate/left-out");
    this.number = people.length;
    document.querySelector("#left-out-count").textContent = people.length === 0 ? "Nobody" : count(people.length, "person", "people");
    this.list.replaceChildren(
      ...people
        .slice(-200)
        .reverse()
        .map((one) => this.row(one)),
    );
  }

  row({ name, feed, until }) {
    const where = feed ? `on ${this.feeds.find((one) => one.id === String(feed))?.name ?? "a chat that is gone"}` : "everywhere";
    const back = button(
      "Take back",
      null,
      () =>
        attempt(async () => {
          await send("/gate/left-out/back", feed ? { name, feed } : { name });
          await this.load();
        }),
      "button plain",
    );
    back.setAttribute("aria-label", `Take ${name} back`);
    return make(
      "li",
      "",
      make("bdi", "", name),
      make("span", "said", until ? `${where}, until ${clock(until)}, ${day(until)}` : where),
      back,
    );
  }
}
