// Fields of the inspector: numbers that are typed, dragged or stepped, colours, choices. Each tells what is wanted;
// whether that may be is for Ruby to say.
import { make } from "../house/elements.js";

let ids = 0;
export function nextId() {
  ids += 1;
  return `field-${ids}`;
}

export function labelled(text, control, className) {
  const label = make("label", className, text);
  label.htmlFor = control.id;
  return label;
}

// write: how a value reads; read: what is sent for what was typed
export function numberField({
  name,
  label,
  unit = "",
  step = 1,
  want,
  gesture,
  read = (text) => text,
  write = (value) => `${value}`,
  range,
}) {
  const input = make("input", "input figure");
  input.id = nextId();
  input.name = name;
  input.inputMode = "decimal";
  input.autocomplete = "off";
  const words = labelled(label, input, "scrub label");
  let shown = 0;
  let current = null;

  const text = (value) => `${write(value)}${unit ? ` ${unit}` : ""}`;
  const give = (typed, how) => want({ [name]: read(typed) }, how);
  const step_by = (steps, how) => {
    shown = Number((shown + steps * step).toFixed(3));
    input.value = text(shown);
    give(String(shown), how);
  };

  input.addEventListener("change", () => give(input.value));
  input.addEventListener("keydown", (event) => {
    const steps = { ArrowUp: 1, ArrowDown: -1 }[event.key];
    if (!steps) return;
    event.preventDefault();
    current ??= gesture();
    step_by(event.shiftKey ? steps * 10 : steps, current);
  });
  input.addEventListener("keyup", () => {
    current = null;
  });

  words.addEventListener("pointerdown", (event) => {
    const from = event.clientX;
    const before = shown;
    const how = gesture();
    words.setPointerCapture(event.pointerId);
    const move = (moved) => {
      const steps = Math.round((moved.clientX - from) / 3);
      if (steps === 0) return;
      shown = before;
      step_by(steps, how);
    };
    words.addEventListener("pointermove", move);
    words.addEventListener("pointerup", () => words.removeEventListener("pointermove", move), { once: true });
  });

  const slider = range && rangeOf(range, give, gesture, label);
  const show = (value) => {
    shown = Number(write(value)) || 0;
    if (document.activeElement !== input) input.value = text(value);
    if (slider && document.activeElement !== slider) slider.value = shown;
    if (slider) fill(slider);
  };
  return { label: words, input, slider, show };
}

// How much of the slider's way lies behind its thumb.
export function fill(slider) {
  const { min, max, value } = slider;
  slider.style.setProperty("--filled", `${((value - min) / (max - min)) * 100}%`);
}

function rangeOf({ min, max }, give, gesture, label) {
  const slider = make("input");
  slider.type = "range";
  slider.min = min;
  slider.max = max;
  slider.setAttribute("aria-label", `${label}, by slider`);
  let how = null;
  slider.addEventListener("input", () => {
    how ??= gesture();
    fill(slider);
    give(slider.value, how);
  });
  slider.addEventListener("change", () => {
    how = null;
    slider.blur();
  });
  return slider;
}

export function numberRow(options) {
  const field = numberField(options);
  const inside = field.slider ? make("div", "row-number", field.slider, field.input) : field.input;
  return { element: make("div", "row", field.label, inside), show: field.show };
}

export function choiceRow({ name, label, choices, want }) {
  const group = make("div", "choice");
  group.setAttribute("role", "radiogroup");
  group.setAttribute("aria-label", label);
  const radios = choices.map(([value, words]) => {
    const radio = make("input");
    radio.type = "radio";
    radio.name = name;
    radio.value = value;
    radio.addEventListener("change", () => want({ [name]: value }));
    group.append(make("label", "", radio, words));
    return radio;
  });
  return {
    element: make("div", "row", make("span", "label", label), group),
    show(value) {
      for (const radio of radios) radio.checked = radio.value === value;
    },
  };
}

// choices: a list, or what stands for what (a Map where the order counts).
export function selectRow({ name, label, choices, want }) {
  const pairs = choices instanceof Map ? [...choices] : Object.entries(choices);
  const options = Array.isArray(choices) ? choices.map((choice) => [choice, choice]) : pairs;
  const select = make("select", "", ...options.map(([value, words]) => new Option(words, value)));
  select.id = nextId();
  select.name = name;
  select.addEventListener("change", () => want({ [name]: select.value }));
  return {
    element: make("div", "row", labelled(label, select, "label"), make("div", "select", select)),
    show(value) {
      select.value = value;
    },
  };
}
