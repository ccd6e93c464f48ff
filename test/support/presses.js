// Presses everything on a page that can be pressed, once each, as a hasty visitor would; and looks at how it is laid out meanwhile.
// Asked for by test/system/pressed_test.rb: walk({ most, skip, lints }) gives { pressed, wrong }; look() only what is wrong as it stands.
(() => {
  const CONTROLS = "button, summary, input:not([type=hidden]), select, textarea, a[href], [role=button], [role=tab]";
  const LEAST_PX = 24;
  const SLACK_PX = 2;
  const MOST_CHOICES = 6;
  const FRAMES = 60;
  const TYPED = ["text", "search", "number", "range", "url", "email", "color", "time", "datetime-local"];
  const words = (text) => (text ?? "").trim().replace(/\s+/g, " ").slice(0, 60);
  const scope = () => document.querySelector("dialog[open]") ?? document.body;
  const seen = (one) => one.checkVisibility({ checkOpacity: true, checkVisibilityCSS: true }) && one.getClientRects().length > 0;
  const inSight = (one) => seen(one) && !one.closest(".is-sr-only, .skip, [aria-hidden=true]");
  const labelOf = (one) => words(one.getAttribute("aria-label") || one.textContent || one.name);
  const called = (one) => `${one.tagName.toLowerCase()}${one.id ? `#${one.id}` : ""} “${labelOf(one)}”`;
  const wrong = [];
  const note = (...what) => wrong.push([...what]);

  // What was asked of the server and has not been answered.
  let open = 0;
  let now = "as it was opened";
  const ask = window.fetch;
  window.fetch = async (path, options) => {
    const pressed = now;
    open += 1;
    try {
      const answer = await ask(path, options);
      if (answer.status >= 400) await judge(pressed, String(path), answer);
      return answer;
    } finally {
      open -= 1;
    }
  };

  // A form that is sent as it stands may be told which of its fields is missing.
  async function judge(pressed, path, answer) {
    const told = await answer
      .clone()
      .json()
      .catch(() => ({}));
    if (answer.status === 422 && told.field) return;
    note("answered an error", pressed, `${answer.status} ${path}: ${words(told.error)}`);
  }

  addEventListener("error", (event) => note("a fault in the page", now, `${event.message} ${event.filename}:${event.lineno}`));
  addEventListener("unhandledrejection", ({ reason }) => note("a fault in the page", now, String(reason?.stack ?? reason)));
  window.open = () => null;
  window.print = () => {};
  // Nobody leaves the page: where links lead is asked for by itself.
  addEventListener(
    "click",
    (event) => {
      const link = event.target.closest?.("a[href]");
      if (link && !link.getAttribute("href").startsWith("#")) event.preventDefault();
    },
    true,
  );
  addEventListener("submit", (event) => event.defaultPrevented || event.preventDefault());

  const frame = () => new Promise((done) => requestAnimationFrame(done));
  async function settled() {
    await frame();
    while (open > 0) await frame();
  }

  // The layout, as it stands.

  const nameOf = (one) =>
    [
      one.getAttribute("aria-label"),
      ...[...(one.labels ?? [])].map((label) => label.textContent),
      one.textContent,
      one.title,
      one.placeholder,
      document.getElementById(one.getAttribute("aria-labelledby"))?.textContent,
    ]
      .map(words)
      .find(Boolean) ?? "";

  // What lies over the rest may cover it.
  function layer(one) {
    for (let at = one; at && at !== document.body; at = at.parentElement)
      if (["absolute", "fixed", "sticky"].includes(getComputedStyle(at).position)) return at;
    return null;
  }

  function small(one) {
    if (getComputedStyle(one).display === "inline" || one.matches("[type=range], [type=checkbox], [type=radio]")) return false;
    const boxes = [one, one.closest("label"), one.closest(".station")].filter(Boolean).map((each) => each.getBoundingClientRect());
    return Math.max(...boxes.map((box) => Math.min(box.width, box.height))) < LEAST_PX - 0.5;
  }

  // As much of it as can be seen where it is scrolled.
  function box(one) {
    const { left, top, right, bottom } = one.getBoundingClientRect();
    const seenBox = { left, top, right, bottom };
    for (let at = one.parentElement; at && at !== document.body; at = at.parentElement) {
      if (getComputedStyle(at).overflowX === "visible") continue;
      const around = at.getBoundingClientRect();
      for (const side of ["left", "top"]) seenBox[side] = Math.max(seenBox[side], around[side]);
      for (const side of ["right", "bottom"]) seenBox[side] = Math.min(seenBox[side], around[side]);
    }
    return seenBox;
  }

  function overlap({ one, place: p, over }, { one: other, place: q, over: otherOver }) {
    if (over !== otherOver || one.contains(other) || other.contains(one) || one.closest("label")?.contains(other)) return false;
    const wide = Math.min(p.right, q.right) - Math.max(p.left, q.left);
    return wide > SLACK_PX && Math.min(p.bottom, q.bottom) - Math.max(p.top, q.top) > SLACK_PX;
  }

  // What is cut off says all of it to whoever points at it.
  function cut(one) {
    const css = getComputedStyle(one);
    if (css.textOverflow !== "ellipsis" || css.overflowX === "visible" || one.scrollWidth <= one.clientWidth + 1) return false;
    one.dispatchEvent(new PointerEvent("pointerover", { bubbles: true }));
    return !one.closest("[title]");
  }

  // What stands in a panel does not reach out of it.
  function outside(one) {
    const panel = one.closest(".panel-box, dialog, .menu-sheet");
    const over = layer(one);
    if (!panel || (over && over !== panel && panel.contains(over))) return false;
    const [its, around] = [box(one), panel.getBoundingClientRect()];
    return its.left < its.right && (its.right > around.right + SLACK_PX || its.left < around.left - SLACK_PX);
  }

  const letters = (one) => (one.tagName === "SELECT" ? [...one.options].map((option) => option.textContent) : [one.matches("button") ? one.textContent : ""]);

  function lint() {
    const controls = [...scope().querySelectorAll(CONTROLS)].filter(inSight);
    if (document.documentElement.scrollWidth > innerWidth + 1) note("wider than its window", now, `${document.documentElement.scrollWidth}`);
    for (const one of controls) {
      if (nameOf(one) === "") note("has no name", now, called(one));
      if (small(one)) note("is a small target", now, called(one));
      if (outside(one)) note("reaches out of its panel", now, called(one));
      if (letters(one).some((text) => /^\s*\p{Ll}\s*$/u.test(text))) note("is called by one letter", now, called(one));
    }
    const placed = controls.map((one) => ({ one, place: box(one), over: layer(one) }));
    for (const [at, each] of placed.entries())
      for (const other of placed.slice(at + 1)) if (overlap(each, other)) note("overlaps", now, `${called(each.one)} and ${called(other.one)}`);
    for (const one of scope().querySelectorAll("*")) if (cut(one) && inSight(one)) note("is cut off without a title", now, called(one));
  }

  async function press(one) {
    if (one.tagName === "SELECT") {
      const before = one.value;
      for (const { value } of [...one.options].slice(0, MOST_CHOICES).concat({ value: before })) {
        one.value = value;
        for (const name of ["input", "change"]) one.dispatchEvent(new Event(name, { bubbles: true }));
      }
    } else if (one.matches("textarea") || (one.tagName === "INPUT" && TYPED.includes(one.type)))
      for (const name of ["input", "change"]) one.dispatchEvent(new Event(name, { bubbles: true }));
    else if (one.type !== "file") return pressed(one);
    await settled();
  }

  // By the keyboard: it stays where it is, or goes where the press led.
  async function pressed(one) {
    one.focus({ preventScroll: true });
    const had = document.activeElement === one;
    one.click();
    await settled();
    // What is shown by what was answered is drawn now, and the keyboard goes there with a frame after that.
    const nowhere = () => document.activeElement === null || document.activeElement === document.body;
    const unseen = () => !seen(document.activeElement.closest("label") ?? document.activeElement);
    for (let frames = 0; frames < FRAMES && (nowhere() || unseen()); frames += 1) await frame();
    if (had && nowhere()) note("leaves the keyboard nowhere", now, called(one));
    else if (had && unseen()) note("leaves the keyboard where nothing is seen", now, called(one));
  }

  window.look = async () => {
    now = "in a small window";
    await settled();
    lint();
    return wrong;
  };

  window.walk = async ({ most, skip, lints }) => {
    const done = new Set();
    const key = (one) => `${called(one)} ${one.className} ${one.closest("dialog, section, aside, article, [data-piece]")?.id ?? ""}`;
    const next = () =>
      [...scope().querySelectorAll(CONTROLS)].find(
        (one) => seen(one) && !one.disabled && !done.has(key(one)) && !one.closest(".signal, .rooms") && !skip.some((each) => one.matches(each)),
      );
    const looked = new Set();
    await settled();
    while (done.size < most) {
      const shown = `${document.querySelector("dialog[open]")?.id} ${document.querySelectorAll("details[open]").length}`;
      if (!looked.has(shown) && looked.size < lints) lint();
      looked.add(shown);
      const one = next();
      if (one) {
        done.add(key(one));
        now = called(one);
        await press(one);
      } else if (document.querySelector("dialog[open]")) {
        document.querySelector("dialog[open]").close();
        await settled();
      } else break;
    }
    for (const path of new Set([...document.querySelectorAll("a[href^='/']")].map((link) => link.getAttribute("href")))) {
      now = `the link ${path}`;
      if (!/logout|\/copy|export|report\//.test(path)) await fetch(path);
    }
    return { pressed: done.size, wrong: [...new Map(wrong.map((each) => [each.filter((_, at) => at !== 1).join(), each])).values()] };
  };
})();
