const list = document.querySelector("#lines");
const topic = document.querySelector("#topic");
const form = document.querySelector("#say");
let seen = "";

function row(line) {
  const item = document.createElement("li");
  const words = document.createElement("span");
  const name = document.createElement("b");
  name.textContent = `${line.nick} `;
  words.append(name, line.text);
  item.append(words);
  item.classList.toggle("gone", line.gone);
  if (!line.gone) {
    const remove = document.createElement("button");
    remove.type = "button";
    remove.textContent = "Delete";
    remove.addEventListener("click", () => post("/delete", { id: line.id }));
    item.append(remove);
  }
  return item;
}

async function post(path, values) {
  await fetch(path, { method: "POST", body: new URLSearchParams(values), redirect: "manual" });
  await refresh();
}

async function refresh() {
  const answer = await fetch("/lines");
  const text = await answer.text();
  if (text === seen) return;
  seen = text;
  const now = JSON.parse(text);
  topic.textContent = now.topic;
  list.replaceChildren(...now.lines.map(row));
  list.scrollTop = list.scrollHeight;
}

form.addEventListener("submit", (event) => {
  event.preventDefault();
  post("/say", new FormData(form));
  form.elements.text.value = "";
});

refresh();
setInterval(() => refresh().catch(() => {}), 700);
