// A cue as viewers will see it: drawn by the air page's code, small in the list, large above its score, and played there.
import { make } from "../house/elements.js";
import { Mini } from "../stage/mini.js";

function behind(root, { backdrop }) {
  root.dataset.backdrop = backdrop;
  root.style.backgroundImage = backdrop.startsWith("file:") ? `url("/pictures/${backdrop.slice(5)}-4.webp")` : "";
}

// What is looked at in a small picture, and how much stands around it.
const WORDS = ".alert-text, .alert-picture";
const AROUND = 0.12;

function draw(mini, root, place, card, small) {
  behind(root, place);
  mini.draw(place.box, [{ style: place.style, sample: ["alert", card] }]);
  if (small) mini.lookAt(WORDS, AROUND);
}

// Drawn once they come into sight, and again only where they are other ones.
export class Thumbs {
  constructor() {
    this.minis = new Map();
    this.drawn = new WeakMap();
    this.watch = new IntersectionObserver((entries) => {
      for (const { target, isIntersecting } of entries) if (isIntersecting) this.draw(target);
    });
  }

  // key: of what it shows; given(): place and card
  add(key, given) {
    const root = make("span", "cue-thumb");
    root.given = given;
    root.dataset.of = key;
    this.watch.observe(root);
    return root;
  }

  draw(root) {
    this.watch.unobserve(root);
    const { place, card } = root.given();
    const mini = new Mini(root);
    this.minis.set(root, mini);
    draw(mini, root, place, card, true);
  }

  // Those that are no longer on the page.
  tidy() {
    for (const [root, mini] of this.minis) {
      if (root.isConnected) continue;
      mini.clear();
      this.minis.delete(root);
    }
  }
}

// By what is pressed, the property it is set by; the innermost first.
const SET_BY = {
  ".alert-picture": "picture",
  ".alert-name": "type_name_colour",
  ".alert-amount, .alert-months, .alert-number": "type_amount_colour",
  ".alert-message": "type_message_colour",
  ".alert-words": "words",
  ".alert-text": "type_size",
};

export class Seen {
  // chosen(property): a part was pressed
  constructor(root, chosen) {
    this.root = root;
    this.mini = new Mini(root);
    root.addEventListener("click", ({ target }) => {
      const [, property] = Object.entries(SET_BY).find(([part]) => target.closest(part)) ?? [];
      if (property) chosen(property);
    });
    addEventListener("resize", () => this.again?.());
  }

  show(place, card) {
    const words = JSON.stringify([place, card]);
    if (this.words === words) return;
    this.words = words;
    this.again = () => draw(this.mini, this.root, place, card, false);
    this.again();
    this.card = card;
  }

  get piece() {
    return this.mini.pieces[0];
  }

  // From its beginning to its end, once.
  play(lengthMs) {
    this.stop();
    this.piece?.alert({ ...this.card, i: `try ${performance.now()}`, ms: lengthMs });
    this.back = setTimeout(() => this.again(), lengthMs + 200);
  }

  stop() {
    clearTimeout(this.back);
  }

  clear() {
    this.stop();
    this.words = null;
    this.again = null;
    this.mini.clear();
    this.root.replaceChildren();
  }
}
