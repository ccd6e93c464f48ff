// Beside the column: where a line went, who a person is, what was done, which links there are.
import { copy } from "../house/copying.js";
import { button, make } from "../house/elements.js";
import { attempt, sendJson } from "../house/send.js";
import { clockSeconds, count, day } from "../house/words.js";
import { markOf } from "../link/marks.js";
import { act, ask, setup } from "./door.js";
import { nameOf, rowOf, wordsOf } from "./row.js";

export class Side {
  constructor({ deeds, goTo }) {
    this.deeds = deeds;
    this.goTo = goTo;
    this.box = document.querySelector("#side");
    this.title = document.querySelector("#side-title");
    this.body = document.querySelector("#side-body");
    document.querySelector("#side-close").addEventListener("click", () => this.close());
    deeds.listeners.push(() => this.what === "done" && this.open("done"));
  }

  close() {
    this.box.hidden = true;
    this.begin(null);
    document.querySelector("#scroller").focus();
  }

  open(what, given) {
    this.begin(what);
    return attempt(() => this[what](given));
  }

  begin(what) {
    this.what = what;
    this.turn = {};
    if (what) this.box.hidden = false;
  }

  // Nothing, where something else was opened meanwhile.
  async ask(path) {
    const { turn } = this;
    const answer = await ask(path);
    return turn === this.turn ? answer : null;
  }

  put(words, ...parts) {
    this.title.textContent = words;
    this.body.replaceChildren(...parts.filter((part) => part !== null));
  }

  async trace(card) {
    const told = await this.ask(`/trace/${card.i}`);
    if (!told) return;
    const { line, steps } = told;
    const shown = line ?? card;
    const list = steps.map((step) =>
      make(
        "li",
        step.kind,
        make("time", "figure", step.plus),
        make("i"),
        make("div", "", make("b", "", step.title), step.words ? make("span", "said", step.words) : null),
      ),
    );
    this.put(
      "Where this line went",
      make("p", "panel-box traced", markOf(shown.m), nameOf(shown), " ", wordsOf(shown)),
      make("ol", "trace", ...list),
    );
  }

  async person(card) {
    const query = new URLSearchParams({ feed: card.fd ?? card.feed, login: card.p ?? card.login });
    const told = await this.ask(`/person?${query}`);
    if (!told) return;
    const { person, lines, deeds } = told;
    this.put(
      person.name,
      ...about(person),
      make("div", "side-acts", this.leaveOut(person, card), person.left_out ? make("span", "chip off", "left out") : null),
      note(person),
      person.noted_by ? make("p", "said", `Noted by ${person.noted_by}, ${day(person.noted_ms ?? person.last)}`) : "",
      make("h3", "", "Last lines"),
      this.rows(lines),
      inLog(person),
      make("h3", "", "What was done"),
      make("ul", "deeds", ...(deeds.length > 0 ? this.deeds.rows(deeds.reverse()) : [make("li", "said", "Nothing yet.")])),
    );
  }

  leaveOut({ login: name, feed, name: called, left_out: out }, card) {
    if (!setup.acts) return null;
    const again = () => this.open("person", card);
    if (out) return button("Take back", null, () => act("take_back", { name, feed }).then(again));
    return button("Leave out", "user-x", () => act("leave_out", { name, feed }, `${called} is left out.`).then(again));
  }

  found(lines, words) {
    this.begin("found");
    this.put(words, lines.length === 0 ? make("p", "said", "Nothing in the log fits. Fewer words find more.") : this.rows(lines));
  }

  people(people, words) {
    this.begin("people");
    const rows = people.map((person) => {
      const row = button("", null, () => this.open("person", person), "found-person");
      row.append(person.mark ? markOf(person.mark) : "", make("bdi", "", person.name), make("span", "said", count(person.lines, "line")));
      return row;
    });
    this.put(words, ...(rows.length > 0 ? rows : [make("p", "said", "Nobody of that name was heard.")]));
  }

  rows(lines) {
    const list = make("div", "side-lines", ...lines.map((card) => rowOf(card, { seconds: true })));
    list.addEventListener("click", (event) => {
      const row = event.target.closest(".row");
      const card = row && lines.find((one) => one.i === Number(row.dataset.line));
      if (card) this.open("trace", card);
    });
    return list;
  }

  done() {
    const rows = this.deeds.rows();
    this.put(
      "What was done",
      make(
        "ul",
        "deeds",
        ...(rows.length > 0 ? rows : [make("li", "said", "What you and your moderators do stands here, with who and when.")]),
      ),
    );
  }

  async links() {
    const told = await this.ask("/links");
    if (told) this.listLinks(told);
  }

  // told: how much there is of what there may be, where that is nearly all
  listLinks({ links, told }) {
    this.put(
      "Prompters without signing in",
      make(
        "p",
        "said",
        "For a panel inside the broadcast software, or somebody at the table. Whoever has the link can use it until it is taken back. Over a game is the same link with nothing but lines, through which everything else is seen, for whatever program lays a page over a game: add &size=26 for larger words, &ground=60 for a darker ground.",
      ),
      told ? make("p", "said", `${told}.`) : null,
      this.linkForm(),
      make("ul", "links", ...links.map((link) => this.link(link))),
    );
  }

  linkForm() {
    const name = make("input", "input");
    Object.assign(name, { placeholder: "A name, such as Panel", maxLength: 60, required: true });
    name.setAttribute("aria-label", "Name of the link");
    const acts = make("select", "", new Option("to read only", ""), new Option("with a moderator’s rights", "1"));
    acts.setAttribute("aria-label", "What it allows");
    const form = make("form", "link-form", name, make("div", "select", acts), make("button", "button do", "Make a link"));
    form.addEventListener("submit", (event) => {
      event.preventDefault();
      attempt(async () => this.listLinks(await sendJson("/prompter/links", { name: name.value, acts: acts.value === "1" })));
    });
    return form;
  }

  link({ id, name, acts, link }) {
    const address = make("input", "input figure covered");
    Object.assign(address, { readOnly: true, value: link, type: "password" });
    address.setAttribute("aria-label", `The link ${name}`);
    const show = () => {
      address.type = address.type === "password" ? "text" : "password";
    };
    const back = () => attempt(async () => this.listLinks(await sendJson(`/prompter/links/${id}/back`, {})));
    const ways = [
      button("Copy", "copy", () => copy(link, "The link")),
      button("Over a game", "picture-in-picture-2", () => copy(`${link}?over`, "The link over a game")),
      button("Show", "eye", show),
      button("Take back", "x", back, "button plain"),
    ];
    const may = make("span", "said", acts ? "a moderator’s rights" : "to read only");
    return make("li", "", make("b", "", name), may, make("div", "link-line", address, ...ways));
  }
}

// For whoever is signed in: links of helpers end at the prompter.
function inLog({ feed, login }) {
  if (!setup.signed_in || setup.over) return "";
  const link = make("a", "", "All they wrote, in the log");
  link.href = `/log/?${new URLSearchParams({ person: login, feed: feed ?? "" })}`;
  return make("p", "said", link);
}

function about(person) {
  const facts = `${count(person.lines, "line")} since ${day(person.first)}; last ${clockSeconds(person.last)}, ${day(person.last)}`;
  const where = ` ${person.feed_name ?? "a chat that is gone"}, signed in as ${person.login}`;
  return [make("p", "said", person.mark ? markOf(person.mark) : null, where), make("p", "said", facts)];
}

function note(person) {
  const field = make("textarea", "input");
  Object.assign(field, { value: person.note ?? "", rows: 3, maxLength: 2000, disabled: !setup.acts });
  field.placeholder = "A note, for everybody with a role";
  field.setAttribute("aria-label", "Note, for everybody with a role");
  field.addEventListener("change", () => act("note", { name: person.login, feed: person.feed, text: field.value }, "Noted."));
  return field;
}
