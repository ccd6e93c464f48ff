// Short messages at the foot of the page, with a way back where there is one.
const LASTS_MS = 9000;

export function say(text, { bad = false, undo } = {}) {
  const line = document.createElement("div");
  line.className = bad ? "message-line bad" : "message-line";
  line.append(text);
  if (undo) {
    const button = document.createElement("button");
    button.type = "button";
    button.className = "button";
    button.textContent = "Undo";
    button.addEventListener("click", () => {
      line.remove();
      undo();
    });
    line.append(button);
  }
  document.querySelector("#messages").append(line);
  setTimeout(() => line.remove(), LASTS_MS);
}
