// A page whose scripts and styles did not all come, as while Bavard starts again, asks for itself once more, and an own page inside
// of it whose answer never came is asked for again: soon at first, then more and more seldom. A plain script, so that it is there
// before those it looks after.
(() => {
  const FIRST_MS = 2000;
  const LONGEST_MS = 60_000;
  const KEPT = "asked again";

  // How long to wait this time; a page that came whole starts anew.
  function wait() {
    const ms = Number(sessionStorage.getItem(KEPT)) || FIRST_MS;
    sessionStorage.setItem(KEPT, Math.min(ms * 2, LONGEST_MS));
    return ms;
  }

  let failed = false;
  addEventListener(
    "error",
    ({ target }) => {
      if (failed || !["SCRIPT", "LINK"].includes(target?.tagName)) return;
      failed = true;
      setTimeout(() => location.reload(), wait());
    },
    true,
  );
  // A window never hears of what loads inside of its page; the document does.
  document.addEventListener(
    "load",
    ({ target }) => {
      if (target?.tagName !== "IFRAME" || !target.src.startsWith(location.origin)) return;
      // What the browser shows in the place of a page that did not come is not ours, and mostly not ours to look into.
      if (!target.contentDocument?.URL.startsWith(location.origin)) setTimeout(() => target.setAttribute("src", target.src), wait());
    },
    true,
  );
  addEventListener("load", () => failed || sessionStorage.removeItem(KEPT));
})();
