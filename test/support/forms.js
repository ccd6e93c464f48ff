// Sets the first and the last choice of everything that is shown in a form, one field after another, as a visitor would; and says what
// was set. What lies between them goes the same way, and the core takes what it offers.
// Asked for by test/system/forms_test.rb: begin(root) begins with a form, in which nothing is set that had the same choices in one before,
// and says how many rounds there are; round(root, number) gives { name: value } of all that were set.
(() => {
  const seen = (one) => one.checkVisibility({ checkVisibilityCSS: true });
  const ask = window.fetch;
  let open = 0;
  window.refused = [];
  window.fetch = async (path, options) => {
    open += 1;
    try {
      const answer = await ask(path, options);
      if (answer.status >= 400) window.refused.push(`${answer.status} ${path} ${options?.body ?? ""}: ${await answer.clone().text()}`.slice(0, 300));
      return answer;
    } finally {
      open -= 1;
    }
  };
  const next = () => new Promise((done) => setTimeout(done));
  // What is sent next is sent when the one before was answered, and what came of it is shown.
  async function settled() {
    do await next();
    while (open > 0);
    await next();
  }

  const ROUNDS = 2;
  const done = new Set();
  let now = [];
  const unfold = (root) => {
    for (const group of root.querySelectorAll("details:not(.menu)")) group.open = true;
  };
  // Those that have a choice, by name. Lists of rows have fields of their own.
  const nameOf = (one) => one.name || one.dataset.name;
  const there = (root) => [...root.querySelectorAll("select[name], input[type=radio], input[role=switch][name], .some[data-name]")];
  const usable = (one) => seen(one) && !one.disabled && !one.closest(".list-row");
  const fields = (root) => {
    const found = new Map();
    for (const one of there(root).filter(usable)) found.set(nameOf(one), [...(found.get(nameOf(one)) ?? []), one]);
    return found;
  };
  const fieldOf = (root, name) => there(root).filter((one) => nameOf(one) === name && usable(one));
  // One that asks for more is no choice yet.
  const optionsOf = (select) => [...select.options].filter(({ value }) => !value.endsWith(":"));
  const choices = ([first, ...more]) => {
    if (!first) return [];
    if (first.tagName === "SELECT") return optionsOf(first).map(({ value }) => value);
    if (first.type === "radio") return [first, ...more].map(({ value }) => value);
    if (first.type === "checkbox") return ["false", "true"];
    return [...first.querySelectorAll("input")].map(({ value }) => value);
  };
  const keyOf = (name, controls) => JSON.stringify([name, choices(controls)]);

  // What stands behind each tab, where there are any.
  const tabs = (root) => [...root.querySelectorAll("[role=tab]")].map(({ dataset }) => dataset.part);
  function turnTo(selector, part) {
    const root = document.querySelector(selector);
    if (part) root.querySelector(`[role=tab][data-part="${part}"]`).click();
    unfold(root);
    return root;
  }

  window.begin = (selector) => {
    const parts = tabs(document.querySelector(selector));
    now = (parts.length > 0 ? parts : [null]).map((part) => {
      const fresh = [...fields(turnTo(selector, part))].filter(([name, controls]) => !done.has(keyOf(name, controls)));
      for (const [name, controls] of fresh) done.add(keyOf(name, controls));
      return { part, names: fresh.map(([name]) => name) };
    });
    return now.some(({ names }) => names.length > 0) ? ROUNDS : 0;
  };

  function give(controls, at) {
    const [first] = controls;
    if (first.tagName === "SELECT") {
      first.value = optionsOf(first)[at].value;
      for (const type of ["input", "change"]) first.dispatchEvent(new Event(type, { bubbles: true }));
      return first.value;
    }
    if (first.type === "radio") {
      controls[at].click();
      return controls[at].value;
    }
    if (first.type === "checkbox") {
      first.click();
      return String(first.checked);
    }
    const boxes = [...first.querySelectorAll("input")];
    boxes[at].click();
    return boxes.filter(({ checked }) => checked).map(({ value }) => value);
  }

  window.round = async (selector, number) => {
    const set = {};
    for (const { part, names } of now) {
      turnTo(selector, part);
      for (const name of names) {
        const root = document.querySelector(selector);
        unfold(root);
        const controls = fieldOf(root, name);
        const last = choices(controls).length - 1;
        if (last < number) continue;
        set[name] = give(controls, number === 0 ? 0 : last);
        await next();
      }
      await settled();
    }
    return set;
  };
})();
