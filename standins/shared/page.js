const list = document.querySelector("#lines");
const state = document.querySelector("#state");
const say = document.querySelector("#say");
const fire = document.querySelector("#event");
const mischief = document.querySelector("#mischief");
let seen = "";

function button(words, act) {
  const made = document.createElement("button");
  made.type = "button";
  made.textContent = words;
  made.addEventListener("click", act);
  return made;
}

function row(line) {
  const item = document.createElement("li");
  const words = document.createElement("span");
  const name = document.createElement("b");
  name.textContent = `${line.nick} `;
  words.append(name, line.event ? `(${line.event}) ${line.text}` : line.text);
  item.append(words);
  item.classList.toggle("gone", line.gone);
  if (!line.gone) {
    item.append(button("Answer", () => post("/say", { login: say.elements.login.value, text: "so it is", reply: line.id })));
    item.append(button("Delete", () => post("/delete", { id: line.id })));
    item.append(button("Silence", () => post("/silence", { login: line.login })));
  }
  return item;
}

async function post(path, values) {
  await fetch(path, { method: "POST", body: new URLSearchParams(values), redirect: "manual" });
  await refresh();
}

async function refresh() {
  const answer = await fetch("/state");
  const text = await answer.text();
  if (text === seen) return;
  seen = text;
  const now = JSON.parse(text);
  state.textContent = now.live ? `Broadcasting${now.number ? `, number ${now.number}` : ""}` : "Nobody is broadcasting";
  list.replaceChildren(...now.lines.map(row));
  list.scrollTop = list.scrollHeight;
  for (const box of mischief.querySelectorAll("input")) box.checked = now.mischief[box.name];
}

say.addEventListener("submit", (event) => {
  event.preventDefault();
  post("/say", new FormData(say));
  say.elements.text.value = "";
});
fire.addEventListener("submit", (event) => {
  event.preventDefault();
  post("/event", { login: say.elements.login.value, kind: fire.elements.kind.value, text: fire.elements.text.value });
});
mischief.addEventListener("change", ({ target }) => post("/mischief", { what: target.name, on: target.checked ? "1" : "0" }));

refresh();
setInterval(() => refresh().catch(() => {}), 700);
