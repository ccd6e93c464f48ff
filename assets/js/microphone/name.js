// A name is chosen, and becomes a link of one's own.
import { Refused, send } from "../house/send.js";

const form = document.querySelector("#name-form");
const error = document.querySelector("#name-error");

function own() {
  try {
    return JSON.parse(localStorage.getItem("bavard.microphone.own"));
  } catch {
    return null;
  }
}

const before = own();
if (before?.path?.startsWith("/mic/")) {
  const link = document.querySelector("#before-link");
  link.href = before.path;
  link.textContent = `go on as ${before.name}`;
  document.querySelector("#before").hidden = false;
}

form.addEventListener("submit", async (event) => {
  event.preventDefault();
  error.hidden = true;
  try {
    location.assign((await send(form.getAttribute("action"), new FormData(form))).at);
  } catch (refused) {
    if (!(refused instanceof Refused)) throw refused;
    error.hidden = false;
    error.textContent = refused.message;
    form.elements.name.focus();
  }
});
