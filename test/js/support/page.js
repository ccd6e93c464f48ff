// A page without a browser: a document, a clock that stands still, chance, sockets and animations that a test holds in its hand.
import { readdirSync, readFileSync } from "node:fs";
import { afterEach, beforeEach } from "node:test";
import { Window } from "happy-dom";
import { Clock } from "./clock.js";
import { OFFERS } from "./offers.js";

const TAKEN = [
  "document",
  "location",
  "localStorage",
  "sessionStorage",
  "matchMedia",
  "Node",
  "Element",
  "HTMLElement",
  "Image",
  "Event",
  "KeyboardEvent",
  "CustomEvent",
  "URL",
  "CSS",
  "getComputedStyle",
  "addEventListener",
  "removeEventListener",
];

// Node's own, for what is no element.
export const PlainEvent = globalThis.Event;

const real = { setTimeout, setInterval, clearTimeout, clearInterval, performance };

// Of one page: reset before each test.
export const page = {};

// A WebSocket of which the test is the other end.
export class FakeSocket extends EventTarget {
  static CONNECTING = 0;
  static OPEN = 1;
  static CLOSED = 3;

  constructor(address) {
    super();
    this.address = address;
    this.sent = [];
    this.readyState = FakeSocket.CONNECTING;
    page.sockets.push(this);
  }

  open() {
    this.readyState = FakeSocket.OPEN;
    this.dispatchEvent(new PlainEvent("open"));
  }

  tell(value) {
    this.dispatchEvent(Object.assign(new PlainEvent("message"), { data: JSON.stringify(value) }));
  }

  // Where a page asks whether all is here, it is told at once, unless the line stalls.
  send(text) {
    const said = JSON.parse(text);
    if (said.here === undefined) return this.sent.push(said);
    this.asked = said.here;
    if (!this.stalls) this.answer();
  }

  answer() {
    const { asked } = this;
    this.asked = null;
    if (asked) this.tell({ here: asked, t: page.clock.now });
  }

  close(code = 1000) {
    if (this.readyState === FakeSocket.CLOSED) return;
    this.readyState = FakeSocket.CLOSED;
    this.dispatchEvent(Object.assign(new PlainEvent("close"), { code }));
  }
}

function Option(text = "", value = text) {
  const option = page.document.createElement("option");
  option.textContent = text;
  option.value = value;
  return option;
}

class Sheet {
  replaceSync(css) {
    this.css = css;
  }
}

// Widths as a canvas tells them: letters of a face that this computer has are wider than those it takes instead.
const pen = () => ({
  font: "",
  measureText(words) {
    const there = [...page.faces].some((face) => this.font.includes(face));
    return { width: words.length * (there ? 9 : 7) };
  },
});

// What runs on an element: finished by the test, not by time.
function animate(frames, timing) {
  const way = { element: this, frames, timing, onfinish: null, cancel: () => {}, finish: () => way.onfinish?.() };
  page.ways.push(way);
  return way;
}

const QUIET = Symbol.for("nothing is told just now");

// A select that a script sets tells nobody, as in a browser; this document would tell of a change. All windows share these classes,
// and so do files that are run one after another: each is changed once.
function quietSelects({ Element, HTMLSelectElement }) {
  const shared = Element.prototype;
  if (!(QUIET in shared)) {
    const { dispatchEvent } = shared;
    shared[QUIET] = false;
    shared.dispatchEvent = function tell(event) {
      return shared[QUIET] || dispatchEvent.call(this, event);
    };
  }
  quietWhile(HTMLSelectElement.prototype, shared);
}

function quietWhile(prototype, shared) {
  if (Object.hasOwn(prototype, QUIET)) return;
  const { get, set } = Object.getOwnPropertyDescriptor(prototype, "value");
  const { replaceChildren } = shared;
  const quietly = (act) => {
    shared[QUIET] = true;
    act();
    shared[QUIET] = false;
  };
  prototype[QUIET] = false;
  prototype.replaceChildren = function offer(...options) {
    quietly(() => replaceChildren.apply(this, options));
  };
  Object.defineProperty(prototype, "value", {
    configurable: true,
    get,
    set(value) {
      quietly(() => set.call(this, `${value}`));
    },
  });
}

// A form of this document cannot be removed by itself, only by its parent.
function removableForms(window) {
  window.HTMLFormElement.prototype.remove = function remove() {
    const { parentNode } = this;
    this.setAttribute("data-gone", "");
    for (const node of [...parentNode.children]) if (node.hasAttribute("data-gone")) parentNode.removeChild(node);
  };
}

export function openPage({ html = "", path = "/air/secret", width = 1920, height = 1080, data = {} } = {}) {
  const window = new Window({ url: `http://127.0.0.1:4600${path}`, width, height, settings: { disableJavaScriptEvaluation: true } });
  for (const name of TAKEN) {
    const value = window[name];
    const bound = typeof value === "function" && /^[a-z]/.test(name) ? value.bind(window) : value;
    Object.defineProperty(globalThis, name, { configurable: true, writable: true, value: bound });
  }
  Object.assign(globalThis, {
    window,
    innerWidth: width,
    innerHeight: height,
    devicePixelRatio: 1,
    WebSocket: FakeSocket,
    CSSStyleSheet: Sheet,
    IntersectionObserver: AllInSight,
    MutationObserver: Watcher,
    Option,
  });
  window.Element.prototype.animate = animate;
  window.HTMLCanvasElement.prototype.getContext = pen;
  window.Element.prototype.getAnimations = function running() {
    return page.ways.filter((way) => way.element === this);
  };
  quietSelects(window);
  removableForms(window);
  window.document.adoptedStyleSheets = [];
  window.document.fonts = Object.assign(new EventTarget(), { status: "loaded", ready: Promise.resolve(), check: () => true });
  window.document.body.innerHTML = html;
  Object.assign(window.document.body.dataset, data);
  Object.assign(page, {
    window,
    document: window.document,
    clock: new Clock(),
    sockets: [],
    ways: [],
    watchers: [],
    asked: [],
    faces: new Set(),
    chance: 0.5,
  });
  page.clock.install(globalThis);
  Math.random = () => page.chance;
  return page;
}

// Told by the test what was changed.
class Watcher {
  constructor(told) {
    page.watchers.push(told);
  }

  observe() {}
}

// Whatever is watched is in sight.
class AllInSight {
  constructor(told) {
    this.told = told;
  }

  observe(target) {
    this.told([{ target, isIntersecting: true }]);
  }

  unobserve() {}
}

// A page that is in another tab.
export function hide(hidden) {
  Object.defineProperty(page.document, "hidden", { configurable: true, value: hidden });
  page.document.dispatchEvent(new globalThis.Event("visibilitychange"));
}

function readable(body) {
  if (body instanceof URLSearchParams || body instanceof FormData) return Object.fromEntries(body);
  return typeof body === "string" ? JSON.parse(body) : body;
}

// Answers what the page asks of the server. answers: by how a path begins, the longest first: a value, or a function of what was sent
export function serve(answers) {
  globalThis.fetch = async (path, options = {}) => {
    const body = readable(options.body);
    page.asked.push([path, body]);
    const [begins] = Object.keys(answers)
      .filter((one) => path.startsWith(one))
      .sort((one, other) => other.length - one.length);
    const answer = answers[begins];
    const value = await (typeof answer === "function" ? answer(body, path) : answer);
    const ok = value?.error === undefined;
    return { ok, redirected: false, json: async () => value };
  };
}

const WEB = new URL("../../../lib/bavard/web/", import.meta.url);
const VIEWS = readdirSync(WEB, { recursive: true, withFileTypes: true }).filter((file) => file.name.endsWith(".erb"));
const viewOf = (name) => VIEWS.find((file) => file.name === `${name}.erb` && !file.path.includes("accounts"));

const ICON = /<%== icon [^%]*%>/g;
const DRAWN = '<svg><use href=""></use></svg>';

// What a template draws before there is anything to draw: its elements with their names, without what Ruby puts in.
export const templateOf = (name) =>
  readFileSync(`${viewOf(name).path}/${name}.erb`, "utf8")
    .replace(ICON, DRAWN)
    .replace(/<%[\s\S]*?%>/g, "");

export const bodyOf = (name) => templateOf(name).match(/<body[^>]*>([\s\S]*)<\/body>/)[1];

// A station's page in its house, before its script runs. data: what Ruby tells the script, by name
export function stationOf(name, data = {}) {
  openPage({ html: bodyOf("layout") });
  page.document.querySelector("#work").innerHTML = templateOf(name);
  for (const [key, value] of Object.entries(data)) page.document.querySelector("main").dataset[key] = JSON.stringify(value);
  page.window.HTMLDialogElement.prototype.showModal = function open() {
    this.open = true;
  };
  page.window.HTMLDialogElement.prototype.close = function close() {
    this.open = false;
  };
}

// All that waits for promises, not for time.
export async function settled() {
  for (let turn = 0; turn < 20; turn += 1) await Promise.resolve();
}

export function key(name, more = {}) {
  const target = more.target ?? page.document.body;
  target.dispatchEvent(new globalThis.KeyboardEvent("keydown", { key: name, bubbles: true, cancelable: true, ...more }));
}

// What some modules look at when they are loaded: this one comes before them.
openPage({ data: { setup: JSON.stringify({ base: "/prompter", acts: true, host: "Odalys", signed_in: true, offers: OFFERS }) } });

// Every test of a file has a page of its own.
export function eachOnAPage(options) {
  beforeEach(() => openPage(typeof options === "function" ? options() : options));
  afterEach(() => {
    for (const [name, value] of Object.entries(real))
      Object.defineProperty(globalThis, name, { configurable: true, writable: true, value });
  });
}

// A page's own script, run anew as when the page is opened.
let opened = 0;
export async function run(script) {
  opened += 1;
  await import(`../../../assets/js/${script}?opened=${opened}`);
  await settled();
}

export const find = (selector) => page.document.querySelector(selector);
export const all = (selector) => [...page.document.querySelectorAll(selector)];
// Whoever sees the page finds things by what they are called.
export const called = (name) => all("[aria-label]").find((one) => one.getAttribute("aria-label") === name);
export const pressable = (words) => all("button, summary, a").find((one) => one.textContent.trim() === words);
export const said = () => all("#messages .message-line").map((line) => line.firstChild.textContent);

export function type(field, value) {
  field.value = value;
  field.dispatchEvent(new globalThis.Event("change", { bubbles: true }));
}
