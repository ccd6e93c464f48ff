// What is looked at before a broadcast: each thing with how it stands, where it is set, and one press that mends it.
import { button, icon, make } from "../house/elements.js";
import { say } from "../house/messages.js";
import { attempt, get, Refused, send, sendJson } from "../house/send.js";

const EVERY_MS = 10000;

// What else the page hears of the show at once.
export const noticedIn = ({ figures, stages }) =>
  JSON.stringify([
    [figures.feeds, figures.live, figures.trouble, figures.brake],
    stages.map(({ id, revision, changes, screens = [] }) => [id, revision, changes?.length, screens.map(({ id, fine }) => [id, fine])]),
  ]);

// What is wrong stands first; where nothing is, one line says so.
export function chipOf(checks) {
  const wrong = checks.filter(({ well }) => !well).length;
  return wrong === 0 ? { words: "all well", tone: "well" } : { words: `${wrong} to look at`, tone: "mind" };
}

export class Checks {
  constructor(box) {
    this.chip = box.querySelector("#checks-chip");
    this.said = box.querySelector("#checks-said");
    this.list = box.querySelector("#checks-list");
    this.more = box.querySelector("#checks-more");
    this.open = false;
    this.more.addEventListener("click", () => {
      this.open = !this.open;
      this.show(this.checks, true);
    });
  }

  follow() {
    this.ask();
    setInterval(() => document.hidden || this.ask(), EVERY_MS);
  }

  // Looked at again as soon as something is another one than before.
  noticed(show) {
    const before = this.noted;
    this.noted = noticedIn(show);
    if (before !== undefined && before !== this.noted) this.ask();
  }

  // Whoever cannot ask just now asks again; what stands there was so.
  async ask() {
    try {
      this.show((await get("/links/checks")).checks);
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      this.said.textContent = "Bavard cannot be reached just now. This is how it stood.";
    }
  }

  show(checks, anew = false) {
    const told = JSON.stringify(checks);
    this.said.textContent = "Looked at again whenever something changes.";
    if (told === this.told && !anew) return;
    this.told = told;
    this.checks = checks;
    const { words, tone } = chipOf(checks);
    this.chip.textContent = words;
    this.chip.className = `chip push ${tone}`;
    this.more.hidden = tone === "mind";
    this.more.setAttribute("aria-expanded", this.open);
    this.more.textContent = this.open ? "Only what is to look at" : `${checks.length} things were looked at`;
    this.draw(checks.filter(({ well }) => !well || this.open || tone === "mind"));
  }

  // Whoever stands on a press with the keyboard stays there; where it is gone, on the first there is.
  draw(checks) {
    const focused = this.list.contains(document.activeElement) && document.activeElement.dataset.press;
    this.list.replaceChildren(...checks.map((check) => this.row(check)));
    if (focused) (this.list.querySelector(`[data-press="${focused}"]`) ?? this.list.querySelector("[data-press]") ?? this.more).focus();
  }

  row({ key, well, title, words, at, mend }) {
    const link = at ? make("a", "check-title", title) : make("b", "check-title", title);
    if (at) Object.assign(link, { href: at }).dataset.press = `${key}-at`;
    const body = make("div", "", link, make("p", "said", words));
    if (mend) {
      const press = button(mend.words, null, () => this.mend(mend), "button small");
      press.dataset.press = `${key}-mend`;
      body.append(press);
    }
    const row = make("li", well ? "check fine" : "check mind", icon(well ? "circle-check" : "triangle-alert"), body);
    row.dataset.check = key;
    return row;
  }

  async mend({ words, path, sends, form }) {
    const done = await attempt(() => (form ? send(path, sends) : sendJson(path, sends)));
    if (!done) return;
    say(`${words}: done.`);
    await this.ask();
  }
}
