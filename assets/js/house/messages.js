// Short messages at the foot of the page, with a way back where there is one.
const LASTS_MS = 9000;

function line(text, bad) {
  const made = document.createElement("div");
  made.className = bad ? "message-line bad" : "message-line";
  made.append(text);
  document.querySelector("#messages").append(made);
  return made;
}

// Goes when it is pressed, and then does what it is for.
function press(on, words, act) {
  const button = document.createElement("button");
  button.type = "button";
  button.className = "button";
  button.textContent = words;
  button.addEventListener("click", () => {
    on.remove();
    act?.();
  });
  on.append(button);
}

export function say(text, { bad = false, undo } = {}) {
  const said = line(text, bad);
  if (undo) press(said, "Undo", undo);
  setTimeout(() => said.remove(), LASTS_MS);
}

// What lasts stands for as long as it does, or until somebody has read it: whoever was away then sees it as well.
const standing = { text: null, line: null };

// text: null once it is over
export function stand(text) {
  if (text === standing.text) return;
  standing.line?.remove();
  standing.text = text;
  standing.line = text === null ? null : line(text, true);
  if (standing.line) press(standing.line, "Close");
}
