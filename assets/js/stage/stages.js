// The stages themselves: named, copied, put in order, taken away and made.
import { say } from "../house/messages.js";
import { attempt, send } from "../house/send.js";

export function stages(stageId, here) {
  const tabs = document.querySelector("#stage-tabs");
  const name = document.querySelector("#stage-name");
  const dialog = document.querySelector("#new-stage");
  const ids = () => [...tabs.querySelectorAll("[data-tab]")].map((tab) => tab.dataset.tab);

  name.addEventListener("change", async () => {
    const done = await attempt(() => send(here("name"), { name: name.value }));
    if (done) tabs.querySelector(`[data-tab="${stageId}"]`).textContent = name.value.trim();
  });
  document.querySelector("#stage-copy").addEventListener("click", async () => {
    const done = await attempt(() => send(here("copy")));
    if (done) location.assign(`/stage/${done.stage}`);
  });
  document.querySelector("#stage-earlier").addEventListener("click", () => shift(-1));
  document.querySelector("#stage-later").addEventListener("click", () => shift(1));
  document.querySelector("#stage-remove").addEventListener("click", takeAway);
  document.querySelector("#stage-new").addEventListener("click", () => dialog.showModal());
  sizes(dialog);

  async function shift(by) {
    const order = ids();
    const at = order.indexOf(stageId);
    if (at + by < 0 || at + by >= order.length) return;
    order.splice(at + by, 0, ...order.splice(at, 1));
    const done = await attempt(() => send("/stage/order", { ids: order.join(",") }));
    if (done) tabs.append(...order.map((id) => tabs.querySelector(`[data-tab="${id}"]`)));
  }

  // Offers the way back on the page that is shown instead.
  async function takeAway() {
    const done = await attempt(() => send(here("remove")));
    if (!done) return;
    sessionStorage.setItem("taken-away", JSON.stringify({ id: stageId, name: name.value }));
    location.assign(done.next ? `/stage/${done.next}` : "/stage");
  }
}

export function offerWayBack() {
  const kept = sessionStorage.getItem("taken-away");
  if (!kept) return;
  sessionStorage.removeItem("taken-away");
  const { id, name } = JSON.parse(kept);
  say(`“${name}” is taken away. Its link shows nothing now.`, {
    undo: async () => {
      const done = await attempt(() => send(`/stage/${id}/put-back`));
      if (done) location.assign(`/stage/${id}`);
    },
  });
}

// Common sizes at hand, in a form for a new stage.
export function sizes(root) {
  for (const choice of root.querySelectorAll("[data-width]")) {
    choice.addEventListener("click", () => {
      root.querySelector('[name="width"]').value = `${choice.dataset.width} px`;
      root.querySelector('[name="height"]').value = `${choice.dataset.height} px`;
      for (const other of root.querySelectorAll("[data-width]")) other.setAttribute("aria-pressed", other === choice);
    });
  }
  root.querySelector("[data-close]")?.addEventListener("click", () => root.close());
}
