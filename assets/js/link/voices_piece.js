// A voice room: its people, who of them talks, and how many more there are.
import { make } from "../house/elements.js";
import { comeIn, goOut, makeRoom, places } from "./motion.js";
import { Piece } from "./piece.js";
import { faceOf, marksOf } from "./voice_parts.js";

export class VoicesPiece extends Piece {
  constructor(id, overrides) {
    super(id, "voices", overrides);
    this.people = new Map();
    this.seats = make("div", "seats");
    this.more = make("div", "voice-more");
    this.empty = make("div", "voice-empty");
    this.element.append(this.seats);
    this.element.dataset.newest = "top";
  }

  style(given) {
    super.style(given);
    this.arrange();
    if (this.card) for (const person of this.card.p) this.draw(this.people.get(person.i), person);
  }

  voices(card, arriving = true) {
    const lively = arriving && !document.hidden ? 1 : 0;
    const before = lively ? places([...this.people.values()].map((one) => one.element)) : new Map();
    const stay = new Set(card.p.map((person) => person.i));
    for (const [id, one] of this.people) {
      if (stay.has(id)) continue;
      goOut(one.element, this.given.motion, lively);
      this.people.delete(id);
    }
    for (const person of card.p) {
      const known = this.people.get(person.i);
      const one = known ?? this.made(person);
      this.draw(one, person);
      if (!known && lively) one.fresh = true;
    }
    this.inOrder(card.p.map((person) => this.people.get(person.i).element));
    this.tellMore(card);
    this.card = card;
    this.element.classList.toggle("dimmed", Boolean(card.q));
    this.arrange();
    for (const one of this.people.values()) {
      if (one.fresh) comeIn(one.element, this.given.motion, lively);
      one.fresh = false;
    }
    if (before.size > 0) makeRoom(before, this.given.motion, lively);
  }

  made({ i }) {
    const one = { element: make("div", "voice"), seat: make("div", "seat plate"), face: null, called: make("span", "voice-called") };
    one.name = make("bdi", "voice-name text", one.called);
    one.bar = make("i", "voice-bar");
    one.marks = make("span", "voice-marks");
    one.element.dataset.voice = i;
    one.element.append(one.seat);
    this.people.set(i, one);
    return one;
  }

  draw(one, person) {
    if (!one) return;
    const face = JSON.stringify([person.f, person.a, person.c]);
    if (one.drawn !== face) {
      one.drawn = face;
      const made = make("span", "voice-face", faceOf(person), one.bar);
      one.face = made;
      one.seat.replaceChildren(made, one.name, one.marks);
    }
    if (one.called.textContent !== person.n) one.called.textContent = person.n;
    one.name.hidden = person.n === "";
    one.element.style.setProperty("--voice", person.c);
    one.element.style.setProperty("--loud", person.l === undefined ? 1 : person.l / 10);
    one.element.classList.toggle("talking", Boolean(person.t));
    marksOf(one.marks, person.m ?? []);
  }

  // Moves only what stands elsewhere: what is moved in the document starts its motion anew.
  inOrder(wanted) {
    const there = [...this.seats.children].filter((element) => !element.classList.contains("leaving"));
    if (wanted.every((element, index) => there[index] === element) && wanted.length === there.length) return;
    for (const element of wanted) this.seats.append(element);
  }

  tellMore({ o, e }) {
    if (o) {
      this.more.textContent = `and ${o} more`;
      this.seats.append(this.more);
    } else this.more.remove();
    this.empty.textContent = e ?? "";
    if (e) this.element.append(this.empty);
    else this.empty.remove();
  }

  // On an arc each has a place of its own, evenly apart, the arc open to below.
  arrange() {
    const arc = this.given.words.arranged === "arc";
    const all = [...this.people.values()].filter((one) => this.card?.p.some((person) => person.i === one.element.dataset.voice));
    const span = (this.given.arc_degrees * Math.PI) / 180;
    for (const [index, one] of all.entries()) {
      const angle = all.length === 1 ? 0 : -span / 2 + (span * index) / (span >= Math.PI * 2 ? all.length : all.length - 1);
      one.element.style.setProperty("--arc-x", arc ? Math.sin(angle).toFixed(4) : "");
      one.element.style.setProperty("--arc-y", arc ? (-Math.cos(angle)).toFixed(4) : "");
    }
    this.element.style.setProperty("--arc-low", arc ? Math.cos(Math.min(span / 2, Math.PI)).toFixed(4) : "");
    this.element.style.setProperty("--arc-wide", arc ? Math.max(0.2, Math.sin(Math.min(span / 2, Math.PI / 2))).toFixed(4) : "");
  }
}
