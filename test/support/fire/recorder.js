// What stands on a page in each frame that is painted: from when until when, and whatever stood twice. On the picture that is chat; where
// the host reads, lines that nobody took away.
window.fire = { stood: {}, twice: [], aside: document.querySelector("#blocks") !== null };
{
  const WHERE = window.fire.aside ? ":is(.held, .waits, .aired, .draft, .nowhere).row" : ".line";
  const now = () => performance.timeOrigin + performance.now();
  const root = window.fire.aside ? document.querySelector("#blocks") : document;
  let before = new Map();
  const hidden = (line) => {
    if (window.fire.aside) return false;
    const style = getComputedStyle(line);
    return style.display === "none" || style.visibility === "hidden" || line.classList.contains("leaving") || line.checkVisibility?.({ checkOpacity: true }) === false;
  };
  const ids = (text) => [...root.querySelectorAll(WHERE)].filter((line) => line.textContent.includes(text)).map((line) => line.dataset.line);
  const look = () => {
    const at = now();
    const here = new Map();
    for (const line of root.querySelectorAll(WHERE)) {
      const text = line.querySelector(".text").textContent;
      if (hidden(line)) continue;
      if (here.has(text)) window.fire.twice.push([text, at, ids(text)]);
      const since = before.get(text) ?? [at, at];
      since[1] = at;
      if (!before.has(text)) window.fire.stood[text] = [...(window.fire.stood[text] ?? []), since];
      here.set(text, since);
    }
    before = here;
    requestAnimationFrame(look);
  };
  look();
}
