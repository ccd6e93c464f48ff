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

const list = document.querySelector(".account-list");

function count() {
  const closed = list.querySelectorAll(":scope > .closed").length;
  document.querySelector("#account-count").textContent = `${list.children.length}, ${closed} closed`;
}

function tell(place, answer) {
  for (const one of place.querySelectorAll("[data-if]")) one.hidden = !answer[one.dataset.if];
  for (const one of place.querySelectorAll("[data-unless]")) one.hidden = answer[one.dataset.unless];
  place.classList.toggle("closed", Boolean(answer.closed));
  if (answer.word) show(place, answer);
  if (answer.said) say(answer.said);
  if (answer.removed) place.remove();
  count();
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

function kept(row) {
  const path = (what) => `/operator/${row.dataset.account}/${what}`;
  for (const button of row.querySelectorAll("[data-do]")) button.addEventListener("click", () => post(row, path(button.dataset.do)));
  for (const form of row.querySelectorAll("[data-form]")) onSubmit(form, path(form.dataset.form));
}

for (const row of list.children) kept(row);

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

// Where it stands by its address, among those that are there.
function madeAccount({ id, email, show }) {
  const row = document.querySelector("#account").content.firstElementChild.cloneNode(true);
  Object.assign(row.dataset, { account: id, email });
  row.querySelector(".account-head bdi").textContent = email;
  row.querySelector(".account-show bdi").textContent = show;
  for (const one of row.querySelectorAll("[id], [for]")) {
    const name = one.id ? "id" : "for";
    one.setAttribute(name, one.getAttribute(name).replace(/\d+$/, id));
  }
  row.querySelector('[data-form="remove"] input').placeholder = email;
  list.insertBefore(row, [...list.children].find((other) => other.dataset.email > email) ?? null);
  kept(row);
  count();
}

const make = document.querySelector("#make");
onSubmit(make, "/operator/accounts", (made) => {
  madeAccount(made);
  for (const name of ["email", "show"]) make.elements[name].value = "";
});
