// Who talks in the voice rooms, for the host's own eyes: a strip over the lines, or a window of its own.
import { button, make } from "../house/elements.js";
import { say } from "../house/messages.js";
import { marksOf } from "../link/voice_parts.js";
import { setup } from "./door.js";
import { keep, kept } from "./kept.js";

const PLACE = { width: 320, height: 220, left: 40, top: 40 };
const FOLLOW_EVERY_MS = 1000;
const LABELS = { width: "Width", height: "Height", left: "From the left", top: "From the top" };

export class Voices {
  constructor() {
    this.alone = new URLSearchParams(location.search).has("voices");
    this.strip = document.querySelector("#voices");
    this.shown = true;
    this.rooms = [];
    document.body.classList.toggle("voices-alone", this.alone);
    if (this.alone) this.rememberPlace();
  }

  take(rooms) {
    this.rooms = rooms;
    this.draw();
  }

  show(shown) {
    this.shown = shown;
    this.draw();
  }

  draw() {
    this.strip.hidden = (!this.shown && !this.alone) || this.rooms.length === 0;
    if (this.strip.hidden) return;
    this.strip.replaceChildren(...this.rooms.map((room) => this.room(room)));
  }

  room({ name, people, more, lost }) {
    const made = make("div", "voice-room", make("b", "", name ?? "Voice room"), ...people.map((person) => this.person(person)));
    if (people.length === 0) made.append(make("span", "said", "nobody is there"));
    if (more > 0) made.append(make("span", "said", `and ${more} more`));
    if (lost) made.append(make("span", "chip mind", "lost; this is what was there"));
    made.classList.toggle("lost", Boolean(lost));
    return made;
  }

  person([name, talks, marks]) {
    const box = make("span", "voice-marks");
    marksOf(box, marks);
    const made = make("span", "voice-person", make("bdi", "", name), box);
    made.classList.toggle("talks", talks);
    return made;
  }

  // Where that window stands is kept, however it was put there.
  rememberPlace() {
    setInterval(() => {
      const place = { width: outerWidth, height: outerHeight, left: screenX, top: screenY };
      if (JSON.stringify(place) !== JSON.stringify(kept("voices"))) keep("voices", place);
    }, FOLLOW_EVERY_MS);
  }

  open() {
    const place = { ...PLACE, ...kept("voices") };
    const features = Object.entries(place)
      .map(([name, value]) => `${name}=${value}`)
      .join();
    const opened = window.open(`${setup.base}/?voices`, "bavard-voices", `popup,${features}`);
    if (!opened) say("This browser does not let the window open. Allow windows from this page, then try again.", { bad: true });
  }

  // Its place and size as numbers, and the button that opens it.
  rows() {
    const fields = Object.entries(LABELS).map(([name, label]) => {
      const input = make("input", "input figure");
      Object.assign(input, {
        type: "number",
        value: { ...PLACE, ...kept("voices") }[name],
        min: name === "width" || name === "height" ? 120 : -8000,
        max: 8000,
      });
      input.setAttribute("aria-label", `${label} of the window of voices`);
      input.addEventListener("change", () => keep("voices", { ...PLACE, ...kept("voices"), [name]: Number(input.value) }));
      return make("label", "voice-place", label, input);
    });
    return [
      button("Voices in a window of their own", "picture-in-picture-2", () => this.open(), ""),
      make("div", "voice-places", ...fields),
    ];
  }
}
