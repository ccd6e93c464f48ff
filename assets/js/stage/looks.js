// What there is to wear, each drawn as it would stand on the host's own picture: one piece, or the whole stage.
import { button, make } from "../house/elements.js";
import { say } from "../house/messages.js";
import { attempt, get, send } from "../house/send.js";
import { Mini } from "./mini.js";

// Whether a piece has words and a plate to be dressed.
export const dressed = (piece) => "text_colour" in piece;

// Around one piece, of its longer side.
const AROUND = 0.06;
const SETS = "The show’s colours and faces become its own, and so does what is heard where a cue has no sound.";
const STAYS = "What they say and show, their places and sizes stay as they are.";

// What pressing a look does, in words.
export function wordsOf(piece, whole, others) {
  if (whole) return `Dresses all ${others + (piece ? 1 : 0)} pieces, and what you add later. ${SETS} ${STAYS}`;
  if (piece.kind === "chat") return "Each is made of the settings you have here. Size, lines kept and seconds stay as they are.";
  return "What the piece says and shows, its place and size stay as they are.";
}

function around([x, y, width, height]) {
  const more = Math.max(width, height) * AROUND;
  return [x - more, y - more, width + 2 * more, height + 2 * more];
}

export class Looks {
  // take(look, whole): the one chosen, and whether all wear it
  constructor(dialog, path, take) {
    this.dialog = dialog;
    this.path = path;
    this.take = take;
    const at = (id) => dialog.querySelector(id);
    this.list = at("#look-list");
    this.title = at("#looks-title");
    this.said = at("#look-said");
    this.switch = at("#look-whole");
    this.row = at("#look-whole-row");
    this.minis = [];
    at("#look-forms").addEventListener("change", () => this.draw());
    this.switch.addEventListener("change", () => this.draw());
    dialog.addEventListener("close", () => this.clear());
    this.keep = at("#look-keep");
    this.keep.addEventListener("submit", (event) => {
      event.preventDefault();
      this.keepThis(this.keep.elements.name.value.trim());
    });
  }

  // piece: the one that wears it, or none: the whole stage; pieces: how many there are
  async open(piece, pieces) {
    Object.assign(this, { piece, others: pieces - (piece ? 1 : 0) });
    this.switch.checked = !piece;
    this.row.hidden = !piece || this.others === 0;
    this.title.textContent = piece ? "Looks to start from" : "Outfits for the whole stage";
    const form = this.dialog.querySelector(`#look-forms [value="${piece?.form === "bright" ? "bright" : "dark"}"]`);
    if (form) form.checked = true;
    if (await this.ask()) {
      this.dialog.showModal();
      this.show();
      this.list.querySelector(".look-card")?.focus();
    }
  }

  get whole() {
    return this.switch.checked;
  }

  get form() {
    return this.dialog.querySelector("#look-forms input:checked").value;
  }

  async ask() {
    const of = this.whole ? "" : `piece=${this.piece.id}&`;
    this.told = await attempt(() => get(`${this.path}?${of}form=${this.form}`));
    return this.told;
  }

  async draw() {
    if (await this.ask()) this.show();
  }

  show() {
    this.clear();
    this.said.textContent = wordsOf(this.piece, this.whole, this.others);
    this.dialog.dataset.whole = this.whole;
    const box = this.whole ? this.told.box : around(this.told.box);
    const cards = this.told.looks.map((look) => this.card(look));
    this.list.replaceChildren(...cards.map((card, at) => this.framed(this.told.looks[at], card)));
    this.keep.querySelector("span").textContent = this.whole ? "Keep this stage’s look" : "Keep this piece’s look";
    this.minis = cards.map((card, at) => {
      const mini = new Mini(card.firstElementChild);
      mini.draw(box, this.told.looks[at].pieces);
      return mini;
    });
  }

  // How it looks now becomes one of the host's own.
  async keepThis(name) {
    const values = this.whole ? { name } : { name, piece: this.piece.id };
    if (!(await attempt(() => send(this.path, values)))) return;
    this.keep.reset();
    say(`“${name}” is kept among your looks.`);
    this.draw();
  }

  async takeAway({ own, name }) {
    const at = `/stage/looks/${own}`;
    if (!(await attempt(() => send(`${at}/remove`)))) return;
    say(`“${name}” is taken away.`, { undo: () => attempt(() => send(`${at}/put-back`)).then(() => this.draw()) });
    this.draw();
  }

  // One of the host's own can be taken away.
  framed(look, card) {
    if (!look.own) return card;
    const off = button("", "trash-2", () => this.takeAway(look), "button plain look-off");
    off.setAttribute("aria-label", `Take “${look.name}” away`);
    return make("div", "look-own", card, off);
  }

  card(look) {
    const card = make("button", "look-card", this.picture(look), make("b", "", look.name), make("span", "said", look.about));
    card.type = "button";
    card.dataset.look = look.key;
    card.addEventListener("click", () => {
      const { whole } = this;
      this.dialog.close();
      this.take(look, whole);
    });
    return card;
  }

  // The picture behind the stage; where there is none, one that suits.
  picture(look) {
    const picture = make("div", "look-picture");
    const frame = document.querySelector("#frame");
    const own = frame && !["none", undefined].includes(frame.dataset.backdrop);
    picture.dataset.backdrop = own
      ? frame.dataset.backdrop
      : this.form === "bright"
        ? "white"
        : look.behind === "white"
          ? "thermal"
          : look.behind;
    if (own) picture.style.backgroundImage = frame.style.backgroundImage;
    return picture;
  }

  clear() {
    for (const mini of this.minis) mini.clear();
    this.minis = [];
  }
}
