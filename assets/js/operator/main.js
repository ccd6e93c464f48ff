import { follow } from "../house/desk.js";
import { keys } from "../house/keys.js";
import { say } from "../house/messages.js";
import { attempt, send } from "../house/send.js";

follow(() => {});
keys({});

// A word that is seen this once stays until the page is left.
function show(place, { words, word }) {
  const said = place.querySelector(".account-said");
  said.hidden = false;
  said.querySelector(".said").textContent = words;
  said.querySelector("input").value = word;
  said.querySelector("input").select();
}

function tell(place, answer) {
  for (const one of place.querySelectorAll("[data-if]")) one.hidden = !answer[one.dataset.if];
  for (const one of place.querySelectorAll("[data-unless]")) one.hidden = answer[one.dataset.unless];
  place.classList.toggle("closed", Boolean(answer.closed));
  if (answer.word) show(place, answer);
  if (answer.said) say(answer.said);
  if (answer.removed) place.remove();
}

async function post(place, path, values = {}) {
  const answer = await attempt(() => send(path, values));
  if (answer) tell(place, answer);
  return answer;
}

function onSubmit(form, path, done = () => {}) {
  form.addEventListener("submit", async (event) => {
    event.preventDefault();
    const answer = await post(form.closest("li") ?? form, path, new FormData(form));
    if (answer) done(answer);
  });
}

for (const row of document.querySelectorAll("[data-account]")) {
  const path = (what) => `/operator/${row.dataset.account}/${what}`;
  for (const button of row.querySelectorAll("[data-do]")) button.addEventListener("click", () => post(row, path(button.dataset.do)));
  for (const form of row.querySelectorAll("[data-form]")) onSubmit(form, path(form.dataset.form));
}

function invited(row) {
  row.querySelector("button").addEventListener("click", () => post(row, `/operator/invitations/${row.dataset.invitation}/back`));
}

const invite = document.querySelector("#invite");
for (const row of invite.querySelectorAll("[data-invitation]")) invited(row);

onSubmit(invite, "/operator/invitations", ({ id, name }) => {
  const row = document.querySelector("#invitation").content.firstElementChild.cloneNode(true);
  row.dataset.invitation = id;
  row.querySelector("bdi").textContent = name;
  invite.append(row);
  invited(row);
});
onSubmit(document.querySelector("#make"), "/operator/accounts");
