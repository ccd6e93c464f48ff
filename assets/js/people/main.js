import { copy } from "../house/copying.js";
import { follow } from "../house/desk.js";
import { keys } from "../house/keys.js";
import { say } from "../house/messages.js";
import { attempt, send } from "../house/send.js";

const again = () => location.reload();

follow(() => {});
keys({});

for (const person of document.querySelectorAll("[data-account]")) {
  const { account } = person.dataset;
  person.querySelector(".role")?.addEventListener("change", (event) =>
    attempt(async () => {
      await send(`/people/${account}/role`, { role: event.target.value });
      say("Counts at once, wherever they are.");
    }),
  );
  person.querySelector(".remove")?.addEventListener("click", () => attempt(() => send(`/people/${account}/remove`).then(again)));
}

for (const invitation of document.querySelectorAll("[data-invitation]"))
  invitation
    .querySelector(".take-back")
    .addEventListener("click", () => attempt(() => send(`/people/invitations/${invitation.dataset.invitation}/back`).then(again)));

for (const button of document.querySelectorAll(".go"))
  button.addEventListener("click", () => attempt(() => send("/people/show", { id: button.dataset.show }).then(again)));

const names = document.querySelector("#names");
names?.addEventListener("submit", (event) => {
  event.preventDefault();
  attempt(async () => {
    const { name, host } = await send("/people/names", new FormData(names));
    document.querySelector(".whose b").textContent = name;
    document.querySelector(".whose span").textContent = `hosted by ${host}`;
    say("It is called that from now on.");
  });
});

const invite = document.querySelector("#invite");
if (invite) {
  const words = document.querySelector("#role-words");
  const explain = () => {
    words.textContent = `May ${JSON.parse(words.dataset.words)[invite.elements.role.value]}.`;
  };
  invite.elements.role.addEventListener("change", explain);
  explain();
  const made = document.querySelector("#invited");
  const link = made.querySelector("input");
  invite.addEventListener("submit", (event) => {
    event.preventDefault();
    attempt(async () => {
      const answer = await send("/people/invite", new FormData(invite));
      made.hidden = false;
      link.value = answer.link;
      link.select();
      say("The link works once. Give it to nobody else.");
    });
  });
  document.querySelector("#copy-invitation").addEventListener("click", () => copy(link.value, "The link"));
}
