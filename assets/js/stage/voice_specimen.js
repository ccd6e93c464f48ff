// One voice in the inspector, drawn as the stage draws it: its parts are clicked to be set.
import { make } from "../house/elements.js";
import { faceOf, marksOf } from "../link/voice_parts.js";

const PERSON = { n: "Sunniva", a: "S", c: "#9fd39a" };
// What is clicked, and the part that means.
export const VOICE_HITS = [
  [".voice-bar", "sign"],
  [".voice-marks", "face"],
  [".voice-face", "face"],
  [".voice-name", "name"],
  [".seat", "plate"],
];

// piece: a voices piece
export function voiceSpecimen(piece) {
  const called = make("span", "voice-called", { none: "", first: "Sunniva", own: "Sun" }[piece.names] ?? "Sunniva Lund");
  const name = make("bdi", "voice-name text", called);
  name.hidden = piece.names === "none";
  const marks = make("span", "voice-marks");
  marksOf(marks, piece.marks.slice(0, 1));
  const seat = make("div", "seat plate", make("span", "voice-face", faceOf(PERSON), make("i", "voice-bar")), name, marks);
  const voice = make("div", "voice talking", seat);
  voice.style.setProperty("--voice", PERSON.c);
  voice.style.setProperty("--loud", 0.7);
  return make("div", "seats", voice);
}
