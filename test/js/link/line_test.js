import assert from "node:assert/strict";
import { test } from "node:test";
import { eachOnAPage } from "../support/page.js";
import { card } from "../support/cards.js";
import { lineOf, recolour } from "../../../assets/js/link/line.js";

eachOnAPage();

const OPTIONS = { height: 28, still: true };
const line = (more = {}, options = {}) => lineOf(card(7, "hello", more), { ...OPTIONS, ...options });
const classes = (box) => [...box.children].map((part) => part.className || part.tagName.toLowerCase());
const plate = (made) => made.querySelector(".plate");

test("a viewer's words are never markup, wherever they stand", () => {
  const evil = "<img src=x onerror=alert(1)>";
  const made = line({
    n: evil,
    f: [
      ["text", evil],
      ["mention", evil],
      ["link", evil],
    ],
    e: evil,
    r: { n: evil, t: evil },
    v: evil,
    h: evil,
  });
  assert.equal(made.querySelectorAll("img, script").length, 0);
  assert.equal(made.querySelector(".name").textContent, evil);
  assert.equal(made.querySelectorAll(".mention, .link").length, 2);
});

test("what is told of a line stands on it for styles to see", () => {
  const made = line({ o: "test", x: 1, w: 1, l: "paid", k: "paid", e: "tipped" });
  assert.deepEqual(
    { ...made.dataset },
    { line: "7", time: "70", kind: "paid", origin: "test", alone: "", first: "", highlight: "paid", event: "" },
  );
  assert.deepEqual({ ...line().dataset }, { line: "7", time: "70", kind: "said" });
});

test("its parts come in the order that is set", () => {
  const full = { b: [["moderator", "Moderator", null, "M", "#63c58a"]], a: [null, "k"], h: "05:52", v: "5.00 EUR" };
  const shown = classes(plate(line(full, { parts: ["time", "name", "badges", "text"] })));
  assert.deepEqual(
    shown.filter((one) => !one.startsWith("badge")),
    ["time", "name", "wbr", "paid", "text"],
  );
  assert.equal(shown.filter((one) => one.startsWith("badge")).length, 1);
  assert.equal(plate(line({}, { parts: ["avatar", "time", "text"] })).children.length, 1);
});

test("with the name above, all but the text stands together", () => {
  const made = plate(line({ h: "05:52" }, { parts: ["text", "time", "name"], place: "above" }));
  assert.deepEqual(classes(made), ["head", "body"]);
  assert.deepEqual(classes(made.firstChild), ["time", "name", "wbr"]);
  assert.equal(made.lastChild.textContent, "hello");
});

test("the host's own markup places the parts, each of them once", () => {
  const markup = ["before ", ["div", "box", [["{name}"], ["b", null, [["{text}"]]]]], ["{paid}"]];
  const made = plate(line({ v: "5 sparks" }, { markup }));
  assert.equal(made.textContent, "before Annhello5 sparks");
  assert.equal(made.querySelector("div.box > b > .text").textContent, "hello");
  assert.equal(made.querySelectorAll(".paid").length, 1);
});

test("what happened and what was said to it are one text", () => {
  const text = (more) => plate(line(more)).querySelector(".text").textContent;
  assert.equal(text({ e: "tipped 5.00 EUR", f: [["text", "for tea"]] }), "tipped 5.00 EUR for tea");
  assert.equal(text({ e: "follows", f: [] }), "follows");
});

test("an answer tells whom it answers, also where that is not known any more", () => {
  assert.equal(plate(line({ r: { n: "Bo", t: "why?" } })).querySelector(".reply").textContent, "Bo why?");
  assert.equal(plate(line({ r: {} })).querySelector(".reply").textContent, "…");
});

test("colours are told in the parts that styles mix", () => {
  const made = line({ c: "#0a0b0c", p: "#ff8000", m: ["circle", "#010203"] });
  const colour = (name) => made.style.getPropertyValue(name);
  assert.deepEqual(["--name", "--name-rgb", "--feed-rgb", "--person-rgb"].map(colour), ["#0a0b0c", "10 11 12", "1 2 3", "255 128 0"]);
  recolour(made, "#ffffff");
  assert.deepEqual(["--name-rgb", "--feed-rgb"].map(colour), ["255 255 255", "1 2 3"]);
});
