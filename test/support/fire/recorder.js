// What stands on the picture in each frame that is painted: from when until when, and whatever stood twice.
window.fire = { stood: {}, twice: [] };
{
  const now = () => performance.timeOrigin + performance.now();
  let before = new Map();
  const look = () => {
    const at = now();
    const here = new Map();
    for (const line of document.querySelectorAll(".line")) {
      const text = line.querySelector(".text").textContent;
      const style = getComputedStyle(line);
      if (style.display === "none" || style.visibility === "hidden" || line.classList.contains("leaving")) continue;
      if (here.has(text)) window.fire.twice.push(text);
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
