// The looks to start from, each drawn as it would stand on a picture of the host's: for one piece, or for the whole stage.
import { make } from "../house/elements.js";
import { attempt, get } from "../house/send.js";
import { ChatPiece } from "../link/chat_piece.js";

// The box a look is shown in, in pixels of the stage.
const BOX = { width: 620, height: 480 };
const TEXT_PX = 34;

// Whether a piece has words and a plate to be dressed.
export const dressed = (piece) => "text_colour" in piece;

const STAYS = "What they say and show, their places and sizes stay as they are.";

// What pressing a look does, in words.
export function wordsOf(piece, whole, others) {
  if (whole) return `Dresses all ${others + (piece ? 1 : 0)} pieces, and what you add later. ${STAYS}`;
  if (piece.kind === "chat") return "Each is made of the settings you have here. Size, lines kept and seconds stay as they are.";
  return "Drawn here as chat wears it. What the piece says and shows, its place and size stay as they are.";
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
    at("#look-forms").addEventListener("change", () => this.draw());
    this.switch.addEventListener("change", () => this.tell());
  }

  // piece: the one that wears it, or none: the whole stage; pieces: how many there are
  async open(piece, pieces) {
    this.told = await attempt(() => get(`${this.path}${piece ? `?piece=${piece.id}` : ""}`));
    if (!this.told) return;
    Object.assign(this, { piece, others: pieces - (piece ? 1 : 0) });
    this.switch.checked = !piece;
    this.row.hidden = !piece || this.others === 0;
    this.title.textContent = piece ? "Looks to start from" : "Outfits for the whole stage";
    this.tell();
    this.dialog.showModal();
    this.draw();
  }

  get whole() {
    return this.switch.checked;
  }

  tell() {
    this.said.textContent = wordsOf(this.piece, this.whole, this.others);
  }

  get form() {
    return this.dialog.querySelector("#look-forms input:checked").value;
  }

  draw() {
    this.list.replaceChildren(...this.told.looks.map((look) => this.card(look)));
    for (const card of this.list.children) card.fill();
  }

  card(look) {
    const picture = make("div", "look-picture");
    picture.dataset.backdrop = this.form === "bright" ? "white" : look.behind === "white" ? "thermal" : look.behind;
    const card = make("button", "look-card", picture, make("b", "", look.name), make("span", "said", look.about));
    card.type = "button";
    card.dataset.look = look.key;
    card.addEventListener("click", () => {
      this.dialog.close();
      this.take(look, this.whole);
    });
    card.fill = () => this.fill(picture, look.forms[this.form]);
    return card;
  }

  fill(picture, { style, cards }) {
    const chat = new ChatPiece("sample", { css: {}, form: "" });
    const ratio = picture.clientWidth / BOX.width;
    // Drawn at one size of text, so that looks are compared and not sizes.
    const css = { ...style.css, "--text-size": `${TEXT_PX}px` };
    const place = [24, 20, BOX.width - 48, BOX.height - 40];
    chat.style({ ...style, css, place });
    chat.element.style.transform = `scale(${ratio})`;
    chat.element.style.transformOrigin = "0 0";
    chat.element.style.left = `${24 * ratio}px`;
    chat.element.style.top = `${20 * ratio}px`;
    picture.replaceChildren(chat.element);
    for (const card of cards) chat.add(card, true);
  }
}
