// What can be done with the line that is chosen: buttons under it, each with its key.
import { icon, make } from "../house/elements.js";
import { KeptRows } from "../house/kept_rows.js";
import { act, setup } from "./door.js";

export class Actions {
  constructor({ pins, large, open, answerTo, speak }) {
    this.told = { pins, large };
    this.open = open;
    this.answerTo = answerTo;
    this.speak = speak;
    this.bar = make("div", "actions");
    this.bar.setAttribute("role", "toolbar");
    this.bar.setAttribute("aria-label", "With this line");
    this.buttons = new KeptRows(this.bar);
  }

  // Every deed with its key, its words and when it can be done.
  all(card) {
    const line = card.i;
    const pinned = this.told.pins().includes(line);
    const large = this.told.large() === line;
    const read = (card.mk ?? []).includes("read");
    const answered = (card.mk ?? []).includes("answered");
    const offers = setup.offers[card.s] ?? [];
    const doing = [
      offers.includes("pull") && ["x", "Pull", "eye-off", () => act("pull", { line }, `Pulled ${card.n}’s line.`)],
      offers.includes("let_go") && ["v", "Let go", "eye", () => act("let_go", { line }, `Let ${card.n}’s line go.`)],
      ["l", "Leave out", "user-x", () => act("leave_out", { name: card.p, feed: card.fd }, `${card.n} is left out.`)],
      ["n", pinned ? "Unpin" : "Pin", pinned ? "pin-off" : "pin", () => act(pinned ? "unpin" : "pin", { line })],
      ["g", large ? "Off the stage" : "Large", large ? "minimize-2" : "maximize-2", () => act(large ? "small" : "large", { line })],
      ["a", answered ? "Not answered" : "Answered", "list-checks", () => act("answered", { line, on: !answered })],
      ["e", read ? "Not read" : "Read", "check", () => act("read", { line, on: !read })],
      ["r", "Answer", "reply", () => this.answerTo(card)],
      ["h", "Shout-out", "handshake", () => act("shout_out", { line }, `The card of ${card.n} is on its way.`)],
    ];
    const looking = [
      ["w", "Where it went", "route", () => this.open("trace", card)],
      ["p", "Person", "user-round", () => this.open("person", card)],
      ["s", "Say it", "volume-2", () => this.speak(card)],
    ];
    return [...(setup.acts ? doing.filter(Boolean) : []), ...looking];
  }

  // What can be done is told anew whenever anything of the line changes; a button that does the same stays, and so does a press on it.
  show(card, row) {
    this.card = card;
    if (!card || !row) return this.bar.remove();
    this.buttons.show(
      this.all(card).map(([key, words, drawing, doIt]) => ({
        key,
        told: [card.i, words],
        draw: () => this.button(key, words, drawing, doIt),
      })),
    );
    if (this.bar.parentElement !== row) row.append(this.bar);
  }

  button(key, words, drawing, doIt) {
    const button = make("button", "action", icon(drawing), make("span", "", words), make("kbd", "", key.toUpperCase()));
    button.type = "button";
    button.addEventListener("click", doIt);
    return button;
  }

  key(key) {
    const found = this.card && this.all(this.card).find(([name]) => name === key);
    found?.[3]();
  }
}
