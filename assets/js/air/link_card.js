// One stage's link, covered until somebody asks for it, and the screens that show it.
import { copy } from "../house/copying.js";
import { icon, iconAt, make } from "../house/elements.js";
import { say } from "../house/messages.js";
import { attempt, get, send } from "../house/send.js";
import { count, lasting } from "../house/words.js";

export class LinkCard {
  constructor(element) {
    this.element = element;
    this.id = element.dataset.stage;
    this.input = element.querySelector("[data-link]");
    this.behindInput = element.querySelector("[data-behind-link]");
    this.options = element.querySelector("[data-options]");
    const on = (name, act) => element.querySelector(`[data-do="${name}"]`).addEventListener("click", act);
    on("copy", () => copy(this.link(), "The link"));
    // No link of its own: a browser would write its address into a corner of the picture.
    on("open", () => window.open(this.link(), "_blank", "noopener"));
    on("uncover", (event) => this.uncover(event.currentTarget));
    on("renew", () => this.renew());
    on("copy-behind", () => copy(this.link("/behind"), "The link of what is behind"));
    on("test", () => this.test());
    for (const preset of element.querySelectorAll("[data-awkward]"))
      preset.addEventListener("click", () => this.testAwkward(JSON.parse(preset.dataset.awkward)));
    on("clear", () => this.clear());
    for (const button of element.querySelectorAll("[data-copy]")) {
      button.addEventListener("click", () => copy(String(this.size?.[button.dataset.copy] ?? ""), button.firstChild.textContent.trim()));
    }
    this.options.addEventListener("input", () => this.readOptions());
    element.querySelector("[data-doubt]").addEventListener("change", ({ target }) => this.doubt(target));
  }

  show(name) {
    return this.element.querySelector(`[data-show="${name}"]`);
  }

  // side: "" for what is in front, or for all where nothing is behind
  link(side = "") {
    const options = this.options.value.trim().replace(/^\?/, "");
    const link = `${this.input.dataset.link}${side}`;
    return options ? `${link}?${options}` : link;
  }

  uncover(button) {
    const shown = button.getAttribute("aria-pressed") === "true";
    button.setAttribute("aria-pressed", !shown);
    button.setAttribute("aria-label", shown ? "Show the link" : "Cover the link");
    button.querySelector("use").setAttribute("href", iconAt(shown ? "eye" : "eye-off"));
    this.input.value = shown ? this.input.dataset.covered : this.link();
    this.behindInput.value = shown ? this.behindInput.dataset.covered : this.link("/behind");
  }

  async renew() {
    const done = await attempt(() => send(`/links/${this.id}/new-link`));
    if (!done) return;
    this.input.dataset.link = done.link;
    if (this.input.value !== this.input.dataset.covered) this.input.value = this.link();
    say("This link is new. The old one shows nothing from now on; copy the new one into your broadcast software.");
  }

  // It stands in the fields afterwards, to be changed and sent again.
  testAwkward([name, text]) {
    for (const [field, value] of Object.entries({ name, text })) this.element.querySelector(`[data-test="${field}"]`).value = value;
    return this.test();
  }

  async test() {
    const lines = this.element.querySelector("[data-count]").value;
    const fields = [...this.element.querySelectorAll("[data-test]")].map((field) => [field.dataset.test, field.value]);
    const values = { count: lines, ...Object.fromEntries(fields.filter(([, value]) => value !== "")) };
    const done = await attempt(() => send(`/links/${this.id}/test`, values));
    if (!done) return;
    if (values.into) return say(`${count(done.sent, "test line")} sent into the draft.`);
    say(
      this.screens === 0
        ? "The test is sent, but no screen shows this link."
        : `${count(done.sent, "test line")} sent to ${count(this.screens, "screen")}.`,
    );
  }

  async clear() {
    const done = await attempt(() => send(`/links/${this.id}/clear`));
    if (done) say("The screen is cleared. New lines come in as before.");
  }

  async doubt(choice) {
    const done = await attempt(() => send(`/links/${this.id}/doubt`, { seconds: choice.value }));
    if (done)
      say(choice.value === "" ? "Chat stays, whatever a screen hears." : `After ${choice.selectedOptions[0].textContent} chat leaves it.`);
  }

  async readOptions() {
    const asked = this.options.value;
    this.element.querySelector("[data-draft]").search = asked.trim();
    const read = await attempt(() => get(`/links/options?options=${encodeURIComponent(asked)}`));
    if (!read || asked !== this.options.value) return;
    const parts = [];
    if (read.understood.length > 0) parts.push(`Understood: ${read.understood.join(", ")}.`);
    if (read.not_understood.length > 0) parts.push(`Not understood: ${read.not_understood.join(", ")}.`);
    this.show("options").textContent = parts.join(" ");
  }

  tell(stage) {
    this.size = stage.size;
    this.screens = stage.screens.length;
    const { width, height } = stage.size;
    this.show("size").textContent = `${width} × ${height}${stage.revision === 0 ? " · nothing on air yet" : ` · r${stage.revision}`}`;
    for (const button of this.element.querySelectorAll("[data-copy]"))
      button.querySelector("b").textContent = stage.size[button.dataset.copy];
    for (const element of this.element.querySelectorAll("[data-two]")) element.hidden = !stage.behind;
    const chip = this.show("screens");
    chip.textContent = this.screens === 0 ? "no screen yet" : screensOf(this.screens, stage.most_screens);
    chip.classList.toggle("off", this.screens > 0);
    this.drawThumb(stage);
    this.show("list").replaceChildren(...stage.screens.map((screen, index) => screenRow(screen, index, stage)));
  }

  drawThumb(stage) {
    const { width, height } = stage.size;
    const thumb = this.element.querySelector(".thumb");
    const per = (value, whole) => `${(value / whole) * 100}%`;
    thumb.style.aspectRatio = `${width} / ${height}`;
    thumb.dataset.backdrop = stage.backdrop;
    thumb.replaceChildren(
      ...stage.boxes.map(([kind, left, top, across, down]) => {
        const box = make("i", kind);
        Object.assign(box.style, { left: per(left, width), top: per(top, height), width: per(across, width), height: per(down, height) });
        return box;
      }),
    );
  }
}

// A screen that is heard of tells each second or so.
const UNHEARD_MS = 5000;

// What it shows that hears nothing either; doubt_s: after so many seconds without a word chat leaves it, or null.
function unheard({ heard }, doubt_s) {
  if (heard < UNHEARD_MS) return null;
  if (!doubt_s) return "Nothing is heard of it: what was taken away since then may still stand there.";
  if (heard < doubt_s * 1000) return `Nothing is heard of it: after ${doubt_s} s chat leaves it.`;
  return "Nothing is heard of it, so chat has left it. It comes back by itself.";
}

function screenRow(screen, index, { revision, behind, doubt_s }) {
  const { fine } = screen;
  const from = ["127.0.0.1", "::1"].includes(screen.from) ? "This computer" : `Computer at ${screen.from}`;
  const words = [screen.words];
  if (screen.revision !== null && !screen.current)
    words.push(revision === 0 ? "shows an empty picture" : `still shows r${screen.revision}`);
  else if (screen.revision) words.push(`shows r${screen.revision}`);
  if (screen.hidden) words.push("hidden, kept loaded");
  if (screen.not_understood.length > 0) words.push(`its link has options that are not understood: ${screen.not_understood.join(", ")}`);
  if (screen.missing.length > 0) words.push(`its computer does not have the face ${screen.missing.join(", ")}, another stands in`);
  if (behind && screen.side) words.push(screen.side === "behind" ? "behind the camera" : "in front of the camera");
  const said = make("div", "", make("p", "", `${from}, screen ${index + 1}`), make("p", "said", `${words.join("; ")}.`));
  for (const words of [unheard(screen, doubt_s), screen.advice]) if (words) said.append(make("p", "said", words));
  const size = screen.drawn ? `${screen.drawn[0]} × ${screen.drawn[1]}` : "–";
  const rate = screen.hidden ? "paused" : screen.rate ? `${screen.rate} fps` : "–";
  return make(
    "div",
    `screen ${fine ? "fine" : "mind"}`,
    icon(fine ? "circle-check" : "triangle-alert"),
    said,
    make("span", "figure", size),
    make("span", "figure", rate),
    make("span", "figure", screen.heard < 1500 ? "just now" : `${lasting(screen.heard)} ago`),
  );
}

// most: how many there may be; told where there is little room left
const screensOf = (number, most) => (most ? `${number} of ${count(most, "screen")} there may be` : count(number, "screen"));
