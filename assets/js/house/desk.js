// The running show as the host's pages see it: the signal line's figures, and whatever a page wants to know.
import { Socket } from "../link/socket.js";
import { cutWordsTold } from "./cut.js";
import { helpAsked } from "./help.js";
import { keepKeyboard } from "./keyboard.js";
import { stand } from "./messages.js";
import { unpressed } from "./pressed.js";
import { smallLeads } from "./small_leads.js";
import { count } from "./words.js";

const MOST_DOTS = 4;
// There is no room for two figures under Air; whether there is a screen, the lamp says.
const narrow = matchMedia("(max-width: 1366px)");

function figure(key, text, trouble = false) {
  const element = document.querySelector(`[data-figure="${key}"]`);
  if (!element) return;
  element.textContent = text;
  element.classList.toggle("trouble", trouble);
}

// From keyboard to screen, as half of the last ten minutes' lines were; said aside where there is no room.
function air(aired, screens, took) {
  const fast = took === null || took === undefined ? "" : `${took} ms`;
  figure("air", narrow.matches ? `${aired} on air` : [count(screens, "screen"), `${aired} on air`, fast].filter(Boolean).join(" · "));
  const element = document.querySelector('[data-figure="air"]');
  if (element) element.title = fast ? `Counted over the last hour; from keyboard to screen in ${fast}` : "Counted over the last hour";
}

// The figures of rooms that change while somebody looks.
function rooms(now) {
  for (const [key, number] of Object.entries(now)) {
    const element = document.querySelector(`[data-room="${key}"]`);
    if (element) element.textContent = number;
  }
}

function figures({ in: came, off, aired, feeds, live, trouble, waiting, screens, emotes, held, brake: braked, on_air: onAir, took }) {
  const state = trouble > 0 ? `${trouble} in trouble` : `${came} in · ${live} live`;
  figure("feeds", feeds === 0 ? "none yet" : state, trouble > 0);
  figure("gate", braked ? "brake is on" : held > 0 ? `${held} held, ${off} off` : `${off} kept off`, braked);
  figure("dress", emotes === 0 ? "no emotes yet" : count(emotes, "emote"));
  figure("stage", waiting > 0 ? `${waiting} waiting` : "nothing waiting");
  air(aired, screens, took);
  rooms({ feeds, dress: emotes, air: screens });
  const lamp = document.querySelector("#on-air");
  lamp.classList.toggle("lit", onAir);
  lamp.lastElementChild.textContent = onAir ? "On air" : "Off air";
}

function dots(lines) {
  if (lines.length === 0 || document.hidden) return;
  for (const wire of document.querySelectorAll(".wire")) {
    if (wire.children.length >= MOST_DOTS) continue;
    const dot = document.createElement("i");
    dot.addEventListener("animationend", () => dot.remove());
    setTimeout(() => dot.remove(), 1200);
    wire.append(dot);
  }
}

// report(whole, lines): everything there is to know now, and the lines that came since the last time.
export function follow(report) {
  cutWordsTold();
  helpAsked();
  keepKeyboard();
  const take = (frame) => {
    figures(frame.figures);
    dots(frame.lines ?? []);
    smallLeads(frame.small_leads);
    stand(frame.trouble ?? null);
    unpressed(() => report(frame, frame.lines ?? []));
  };
  return new Socket("/live", {
    frame: (frame) => frame.figures && take(frame),
    missed: (frames) =>
      frames.length > 0 &&
      take({
        ...frames.at(-1),
        lines: frames.flatMap((frame) => frame.lines ?? []),
        edited: frames.flatMap((frame) => frame.edited ?? []),
      }),
  });
}
