// Where anything else sends to: address, key and an example.
import { copy } from "../house/copying.js";
import { say } from "../house/messages.js";
import { attempt, get, Refused, send } from "../house/send.js";

const DOTS = "•".repeat(20);
const sheet = document.querySelector("#inbox");
const toggle = document.querySelector("#inbox-show");
const expects = sheet.querySelector("#inbox-expects");
const error = sheet.querySelector("#inbox-error");
const fields = sheet.querySelectorAll("input[readonly], textarea");
let feedId = null;

function example(address, secret) {
  return [
    `body='{"@context":"https://www.w3.org/ns/activitystreams","type":"Create","actor":{"type":"Person","preferredUsername":"mudlark7"},"object":{"type":"Note","mediaType":"text/plain","content":"hello from a shell"}}'`,
    "now=$(date +%s)",
    `signature=$(printf '%s.%s' "$now" "$body" | openssl dgst -sha256 -hmac '${secret}' -r | cut -d' ' -f1)`,
    `curl -s '${address}' -H "Bavard-Timestamp: $now" -H "Bavard-Signature: $signature" -H 'Content-Type: application/activity+json' -d "$body"`,
  ].join("\n");
}

// Covered until somebody asks to see them: this screen may be on the broadcast. They can be copied all the same.
function show(uncovered) {
  toggle.setAttribute("aria-pressed", uncovered);
  for (const field of fields) field.value = uncovered ? field.dataset.real : field.dataset.covered;
}

export function showInbox({ address, secret, expects: minutes, id }) {
  feedId = id;
  error.hidden = true;
  expects.value = minutes ?? "";
  const covered = address.replace(/[^/]+$/, DOTS);
  const real = { "inbox-address": address, "inbox-secret": secret, "inbox-curl": example(address, secret) };
  const hidden = { "inbox-address": covered, "inbox-secret": DOTS, "inbox-curl": example(covered, DOTS) };
  for (const field of fields) Object.assign(field.dataset, { real: real[field.id], covered: hidden[field.id] });
  show(false);
  sheet.showModal();
}

toggle.addEventListener("click", () => show(toggle.getAttribute("aria-pressed") !== "true"));

sheet.querySelector("#inbox-expects-do").addEventListener("click", async () => {
  error.hidden = true;
  try {
    const told = await send(`/feeds/${feedId}/expects`, { minutes: expects.value });
    say(told.expects ? "It is said in the lane where nothing comes for longer." : "It comes when it comes.");
  } catch (refused) {
    if (!(refused instanceof Refused)) throw refused;
    error.hidden = false;
    error.textContent = refused.message;
  }
});

export async function openInbox(id) {
  const inbox = await attempt(() => get(`/feeds/${id}/inbox`));
  if (inbox) showInbox(inbox);
}

for (const button of sheet.querySelectorAll("[data-copy]"))
  button.addEventListener("click", () => copy(document.getElementById(button.dataset.copy).dataset.real, button.dataset.what));
