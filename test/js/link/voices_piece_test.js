import assert from "node:assert/strict";
import { test } from "node:test";
import { eachOnAPage, hide, page } from "../support/page.js";
import { VoicesPiece } from "../../../assets/js/link/voices_piece.js";
import { piece, text } from "../support/on_air.js";

eachOnAPage();

// Voices.

const person = (i, more = {}) => ({ i, n: i, a: i[0], c: "#8fc0ea", ...more });
const voices = (style = {}) => piece(VoicesPiece, { words: { arranged: "upright" }, arc_degrees: 180, ...style });
const seats = (made) => [...made.element.querySelectorAll(".voice:not(.leaving)")].map((one) => one.dataset.voice);

test("people of a room come, go and stand in the order they are told in", () => {
  const made = voices();
  made.voices({ p: [person("odalys"), person("teo")] });
  made.voices({ p: [person("teo"), person("ibrahim"), person("odalys")] });
  assert.deepEqual(seats(made), ["teo", "ibrahim", "odalys"]);
  made.voices({ p: [person("ibrahim")], o: 2 });
  assert.deepEqual([seats(made), text(made, ".voice-more")], [["ibrahim"], "and 2 more"]);
  made.voices({ p: [], e: "Nobody is here" });
  assert.deepEqual([seats(made), text(made, ".voice-empty"), text(made, ".voice-more")], [[], "Nobody is here", undefined]);
});

test("who talks is shown, who is muted has a mark, and a lost service dims the room", () => {
  const made = voices();
  made.voices({ p: [person("teo", { t: 1, l: 5, m: ["muted", "of tomorrow"] })], q: 1 });
  const teo = made.element.querySelector(".voice");
  assert.deepEqual(
    [teo.classList.contains("talking"), teo.style.getPropertyValue("--loud"), made.element.classList.contains("dimmed")],
    [true, "0.5", true],
  );
  assert.deepEqual(
    [...teo.querySelectorAll(".voice-mark")].map((mark) => mark.getAttribute("aria-label")),
    ["muted"],
  );
  made.voices({ p: [person("teo")] });
  assert.deepEqual([teo.classList.contains("talking"), teo.querySelectorAll(".voice-mark").length], [false, 0]);
});

test("a face that does not come is a letter", () => {
  const made = voices();
  made.voices({ p: [person("teo", { f: "abc" })] });
  made.element.querySelector("img").dispatchEvent(new page.window.Event("error"));
  assert.equal(text(made, ".voice-picture.drawn"), "t");
});

test("on an arc people stand evenly apart, one alone in the middle", () => {
  const made = voices({ words: { arranged: "arc" } });
  const places = () =>
    [...made.people.values()].map((one) => [one.element.style.getPropertyValue("--arc-x"), one.element.style.getPropertyValue("--arc-y")]);
  made.voices({ p: [person("a")] });
  assert.deepEqual(places(), [["0.0000", "-1.0000"]]);
  made.voices({ p: [person("a"), person("b"), person("c")] });
  assert.deepEqual(
    places().map(([x]) => Number(x)),
    [-1, 0, 1],
  );
});

test("a hidden page lets people of a room stand at once", () => {
  const made = voices();
  hide(true);
  made.voices({ p: [person("teo")] });
  assert.equal(page.ways.length, 0);
});
