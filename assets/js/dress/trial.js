// A line to try: dressed as it would be on air.
import { make } from "../house/elements.js";
import { attempt, get } from "../house/send.js";
import { lineOf } from "../link/line.js";
import { markOf } from "../link/marks.js";

const EMOTE_PX = 56;

export class Trial {
  constructor() {
    this.asked = 0;
    this.text = document.querySelector("#try-text");
    this.line = document.querySelector("#try-line");
    this.said = document.querySelector("#try-said");
    this.feeds = document.querySelector("#try-feeds");
    this.text.addEventListener("input", () => this.dress());
    this.feeds.addEventListener("change", () => this.dress());
  }

  show({ feeds }) {
    const chosen = this.feeds.querySelector("input:checked")?.value;
    this.feeds.replaceChildren(
      ...feeds.map((feed, index) => {
        const input = make("input");
        Object.assign(input, {
          type: "radio",
          name: "try-feed",
          value: feed.id,
          checked: chosen ? Number(chosen) === feed.id : index === 0,
        });
        input.setAttribute("aria-label", feed.name);
        return make("label", "try-feed", input, markOf(feed.mark), make("span", "", feed.name));
      }),
    );
    this.dress();
  }

  async dress() {
    this.asked += 1;
    const number = this.asked;
    const feed = this.feeds.querySelector("input:checked")?.value ?? "";
    const query = new URLSearchParams({ text: this.text.value, feed });
    const tried = await attempt(() => get(`/dress/try?${query}`));
    if (!tried || number !== this.asked) return;
    this.line.replaceChildren(lineOf(tried.card, { height: EMOTE_PX, still: false }));
    this.said.textContent = tried.said.join(" ");
  }
}
