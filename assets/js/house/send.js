// What the house's pages ask of the server.
import { say } from "./messages.js";
import { released } from "./pressed.js";
import { follow } from "./taking.js";

// A page that has no cookie has no token either, and needs none.
const token = document.querySelector('meta[name="csrf"]')?.content ?? "";

// How much a request may bring, by where it goes to; the server cuts off what is more, without words that would arrive.
const bodies = () => JSON.parse(document.querySelector('meta[name="bodies"]')?.content ?? "[]");
const MB = 1024 * 1024;

function sizeOf(body) {
  if (body instanceof FormData) return [...body.values()].reduce((sum, value) => sum + (value.size ?? value.length), 0);
  return body?.byteLength ?? body?.size ?? 0;
}

function check(path, body) {
  const [, most] = bodies().find(([place]) => new RegExp(place).test(path)) ?? [];
  if (most === undefined || sizeOf(body) <= most) return;
  throw new Refused({ error: `That is more than fits at once: ${Math.floor(most / MB)} MB at most. Nothing was sent.` });
}

export class Refused extends Error {
  constructor({ error, field, anyway }) {
    super(error);
    this.field = field;
    this.anyway = anyway;
  }
}

async function answerOf(response) {
  const unreadable = { error: "Bavard answered something that cannot be read." };
  const answer = await response.json().catch(() => unreadable);
  if (response.ok && answer !== unreadable) return answer;
  throw new Refused(answer);
}

async function ask(path, options = {}, answer = answerOf) {
  const headers = { "X-CSRF-Token": token, "X-Requested-With": "XMLHttpRequest", ...options.headers };
  check(path, options.body);
  let response;
  try {
    response = await fetch(path, { ...options, headers });
  } catch {
    throw new Refused({ error: "Bavard cannot be reached just now. Nothing was changed; try again in a moment." });
  }
  if (!response.redirected) {
    const told = await answer(response);
    await released();
    return told;
  }
  location.assign("/account/login");
  throw new Refused({ error: "You were signed out meanwhile. Nothing was changed." });
}

// Throws Refused, for a form that shows the reason beside the field.
export function send(path, values = {}) {
  return ask(path, { method: "POST", body: new URLSearchParams(values) });
}

// A form with files in it. What takes a while is followed until it is there.
export async function sendFiles(path, form) {
  const answer = await ask(path, { method: "POST", body: form });
  return answer.taking ? follow(answer) : answer;
}

export function sendJson(path, value) {
  return ask(path, { method: "POST", body: JSON.stringify(value), headers: { "Content-Type": "application/json" } });
}

// Bytes, or a form whose answer is a file.
export function sendRaw(path, body, { as } = {}) {
  const blob = async (response) => (response.ok ? response.blob() : answerOf(response));
  return ask(path, { method: "POST", body }, as === "blob" ? blob : answerOf);
}

export function get(path) {
  return ask(path);
}

// For buttons: says what went wrong and gives undefined.
export async function attempt(work) {
  try {
    return await work();
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    say(error.message, { bad: true });
  }
}
