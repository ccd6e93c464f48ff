// The one place where a viewer's words become part of a page: as text nodes, never as markup.
import { badgeOf, emoteOf, faceOf } from "./dress.js";
import { markOf } from "./marks.js";

function element(name, className, text) {
  const made = document.createElement(name);
  made.className = className;
  if (text !== undefined) made.textContent = text;
  return made;
}

export function fragmentsOf(fragments, options) {
  return fragments.map((fragment) => {
    const [kind, text] = fragment;
    if (kind === "text") return document.createTextNode(text);
    return kind === "emote" ? emoteOf(fragment, options) : element("span", kind, text);
  });
}

export function badgesOf(badges, options) {
  return (badges ?? []).map((badge) => badgeOf(badge, options));
}

function replyOf({ n: name, t: text }) {
  const reply = element("span", "reply");
  reply.append(element("bdi", "", name ?? "…"));
  if (text) reply.append(" ", element("span", "reply-text", text));
  return reply;
}

// What happened, and what its person said to it.
function happenedOf(card, options) {
  const text = element("span", "text");
  text.append(element("span", "event", card.e));
  if (card.f.length > 0) text.append(" ", ...fragmentsOf(card.f, options));
  return text;
}

function textOf(card, options) {
  const text = card.e ? happenedOf(card, options) : element("span", "text");
  text.dir = "auto";
  if (!card.e) text.append(...fragmentsOf(card.f, options));
  return text;
}

function partOf(part, card, options) {
  switch (part) {
    case "mark":
      return [markOf(card.m)];
    case "avatar":
      return card.a ? [faceOf(card.a, options)] : [];
    case "badges":
      return badgesOf(card.b, options);
    case "time":
      return card.h ? [element("time", "time", card.h)] : [];
    case "name":
      // A text that cannot be broken goes on the next line rather than the name.
      return [element("bdi", "name", card.n), document.createElement("wbr")];
    case "paid":
      return card.v ? [element("span", "paid", card.v)] : [];
    default:
      return [...(options.markup ? [] : partOf("paid", card, options)), textOf(card, options)];
  }
}

const PARTS = ["mark", "avatar", "badges", "time", "name", "text"];

// The host's own markup, as Ruby read it: [element, class, children], ["{part}"], or words.
function templated(tree, card, options) {
  return tree.flatMap((node) => {
    if (typeof node === "string") return [document.createTextNode(node)];
    const [name, className, children] = node;
    if (node.length === 1) return partOf(name.slice(1, -1), card, options);
    const made = element(name, className ?? "");
    made.append(...templated(children, card, options));
    return [made];
  });
}

// Above the text or in a column beside it, all other parts stand together.
function arranged(card, options) {
  if (options.markup) return templated(options.markup, card, options);
  const parts = options.parts ?? PARTS;
  if ((options.place ?? "line") === "line") return parts.flatMap((part) => partOf(part, card, options));
  const head = element("span", "head");
  head.append(...parts.filter((part) => part !== "text").flatMap((part) => partOf(part, card, options)));
  return [head, element("span", "body")].map((box, index) => {
    if (index === 1) box.append(...partOf("text", card, options));
    return box;
  });
}

// A card is what Ruby's LineCard made. options: height of an emote in pixels, still: whether none moves, parts: their
// order, place: where the name stands.
export function lineOf(card, options) {
  const line = element("div", "line");
  line.dataset.line = card.i;
  line.dataset.time = card.t;
  line.dataset.kind = card.k;
  if (card.o) line.dataset.origin = card.o;
  if (card.x) line.dataset.alone = "";
  if (card.w) line.dataset.first = "";
  if (card.l) line.dataset.highlight = card.l;
  if (card.e) line.dataset.event = "";

  const plate = element("div", "plate");
  plate.setAttribute("elementtiming", `line-${card.i}`);
  if (card.r) plate.append(replyOf(card.r));
  plate.append(...arranged(card, options));
  line.append(plate);
  recolour(line, card.c, card.m?.[1]);
  if (card.p) line.style.setProperty("--person-rgb", inParts(card.p));
  return line;
}

const inParts = (colour) => [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16)).join(" ");

export function recolour(line, colour, feed) {
  line.style.setProperty("--name", colour);
  line.style.setProperty("--name-rgb", inParts(colour));
  if (feed) line.style.setProperty("--feed-rgb", inParts(feed));
}
