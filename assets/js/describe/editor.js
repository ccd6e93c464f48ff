// JSON as somebody writes it: coloured, with the number of each line, and what is wrong marked beside it.
import { button, make } from "../house/elements.js";

const PARTS = /("(?:[^"\\\n]|\\.)*")(\s*:)?|(-?\d+(?:\.\d+)?(?:[eE][+-]?\d+)?|true|false|null)/g;
const STEP = "  ";

// The text as coloured pieces.
export function coloured(text) {
  const pieces = [];
  let from = 0;
  for (const found of text.matchAll(PARTS)) {
    if (found.index > from) pieces.push(text.slice(from, found.index));
    const [whole, string, colon, plain] = found;
    pieces.push(make("span", plain ? "json-plain" : colon ? "json-name" : "json-text", plain ?? string));
    if (colon) pieces.push(colon);
    from = found.index + whole.length;
  }
  pieces.push(text.slice(from));
  return pieces;
}

export class Editor {
  constructor({ text, changed }) {
    this.field = document.querySelector("#text");
    this.shown = document.querySelector("#editor-shown");
    this.numbers = document.querySelector("#editor-lines");
    this.list = document.querySelector("#faults");
    this.fits = document.querySelector("#fits");
    this.faults = [];
    this.field.value = text;
    this.field.addEventListener("input", () => {
      this.draw();
      changed();
    });
    this.field.addEventListener("scroll", () => this.follow());
    this.field.addEventListener("keydown", (event) => this.indent(event));
    this.changed = changed;
    this.draw();
  }

  get text() {
    return this.field.value;
  }

  // Another text, which can be taken back as anything that is typed.
  put(text) {
    this.field.focus();
    this.field.select();
    if (!document.execCommand("insertText", false, text)) {
      this.field.value = text;
      this.draw();
      this.changed();
    }
  }

  draw() {
    this.shown.replaceChildren(...coloured(this.text), "\n");
    const lines = this.text.split("\n").length;
    const wrong = new Map(this.faults.map((fault) => [fault.line, fault.words]));
    this.numbers.replaceChildren(
      ...Array.from({ length: lines }, (_, index) => {
        const number = make("span", wrong.has(index + 1) ? "wrong" : "", String(index + 1));
        if (wrong.has(index + 1)) number.title = wrong.get(index + 1);
        return number;
      }),
    );
    this.follow();
  }

  follow() {
    const { scrollTop, scrollLeft } = this.field;
    this.shown.style.transform = `translate(${-scrollLeft}px, ${-scrollTop}px)`;
    this.numbers.style.transform = `translateY(${-scrollTop}px)`;
  }

  // A new line begins where the one before did.
  indent(event) {
    if (event.key !== "Enter" || event.isComposing) return;
    const { selectionStart: from, value } = this.field;
    const line = value.slice(value.lastIndexOf("\n", from - 1) + 1, from);
    event.preventDefault();
    document.execCommand("insertText", false, `\n${line.match(/^ */)[0]}${/[{[]\s*$/.test(line) ? STEP : ""}`);
  }

  mark(faults) {
    this.faults = faults;
    this.fits.className = faults.length === 0 ? "chip well" : "chip mind";
    this.fits.textContent =
      faults.length === 0 ? "fits the schema" : faults.length === 1 ? "one thing is wrong" : `${faults.length} things are wrong`;
    this.list.replaceChildren(
      ...faults.map((fault) =>
        make(
          "li",
          "",
          button(`Line ${fault.line}: ${fault.at ? `${fault.at}, ` : ""}${fault.words}`, null, () => this.goTo(fault.line), "fault"),
        ),
      ),
    );
    this.draw();
  }

  goTo(line) {
    const before = this.text.split("\n").slice(0, line - 1);
    const from = before.reduce((sum, one) => sum + one.length + 1, 0);
    this.field.focus();
    this.field.setSelectionRange(from, from + this.text.split("\n")[line - 1].length);
    this.field.scrollTop = (line - 4) * Number.parseFloat(getComputedStyle(this.field).lineHeight);
  }
}
