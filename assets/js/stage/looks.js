// The looks to start from, each drawn as it would stand on a picture of the host's.
import { make } from "../house/elements.js";
import { attempt, get } from "../house/send.js";
import { ChatPiece } from "../link/chat_piece.js";

// The box a look is shown in, in pixels of the stage.
const BOX = { width: 620, height: 480 };
const TEXT_PX = 34;

export class Looks {
  // take(set): the look chosen
  constructor(dialog, path, take) {
    this.dialog = dialog;
    this.path = path;
    this.take = take;
    this.list = dialog.querySelector("#look-list");
    dialog.querySelector("#look-forms").addEventListener("change", () => this.draw());
  }

  async open(piece) {
    this.told = await attempt(() => get(`${this.path}?piece=${piece.id}`));
    if (!this.told) return;
    this.dialog.showModal();
    this.draw();
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
      this.take(look.set, look.name);
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
