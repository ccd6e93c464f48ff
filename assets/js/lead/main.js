// From chat to air: five things, each seen to work. What is shown follows what the show tells.
import { copy } from "../house/copying.js";
import { follow } from "../house/desk.js";
import { make } from "../house/elements.js";
import { keys } from "../house/keys.js";
import { say } from "../house/messages.js";
import { attempt, send } from "../house/send.js";
import { showBackdrop } from "../stage/backdrops.js";
import { upload } from "../stage/files.js";
import { ChatForm } from "./chat.js";
import { Outfits } from "./outfits.js";
import { Steps } from "./steps.js";

const at = (id) => document.querySelector(id);
// Lines for a chat in which nobody writes.
const MADE_UP = "quiet_dawn";
const names = JSON.parse(at(".lead-page").dataset.outfits);

function saidOf(steps) {
  const done = steps.filter(({ state }) => state === "done").length;
  if (done === steps.length) return "All of it works. This page goes when you say so.";
  return `Each is seen to work before it counts. ${done} of ${steps.length} so far.`;
}

class Lead {
  constructor() {
    this.frame = at("#frame");
    this.steps = new Steps(at("#lead-steps"));
    this.outfits = new Outfits(at("#lead-outfits"), this.frame);
    this.chat = new ChatForm(at("#lead-chat-form"));
    this.link = {};
    this.made = false;
    for (const head of document.querySelectorAll(".lead-head")) head.addEventListener("click", () => this.draw());
    this.pictures();
    for (const button of document.querySelectorAll(".lead-page [data-copy]"))
      button.addEventListener("click", () => this.copy(button.dataset.copy, button.firstChild.textContent.trim()));
    at("#lead-take").addEventListener("click", () => this.takeOutfit());
    at("#lead-leave").addEventListener("click", () => this.leave("/lead/leave"));
    at("#lead-finish").addEventListener("click", () => this.leave("/lead/finish"));
  }

  // The stage is made when it is needed, not before; whoever needs it meanwhile waits for the same one.
  begin() {
    this.beginning ??= attempt(() => send("/lead/stage")).then((stage) => {
      this.beginning = undefined;
      if (stage) this.use(stage);
    });
    return this.beginning;
  }

  use(stage) {
    this.link = { link: stage.link, ...stage.size };
    this.stage = stage.stage;
    at(".lead-page").dataset.stage = stage.stage;
    for (const name of ["width", "height", "frame_rate"]) at(`[data-copy="${name}"] b`).textContent = stage.size[name];
    this.frame.style.setProperty("--ratio", stage.size.width / stage.size.height);
    const draft = make("iframe");
    Object.assign(draft, {
      id: "draft",
      title: "The draft, as its screens would draw it",
      tabIndex: -1,
      src: `/stage/${stage.stage}/draft`,
    });
    at("#draft")?.remove();
    this.frame.prepend(draft);
    at("#lead-whose").hidden = false;
    this.draw();
  }

  // What the show tells.
  tell({ lead, stages }) {
    if (this.leaving) return;
    // Somebody said elsewhere that it is done.
    if (lead === null) return location.assign("/feeds");
    if (lead.left) return this.takeUp();
    this.now = { lead, stages };
    this.steps.show(lead.steps);
    this.draw();
  }

  // Whoever comes here takes it up again; where somebody put it aside elsewhere, it stays that.
  takeUp() {
    if (!this.now) attempt(() => send("/lead/take-up"));
  }

  draw() {
    if (!this.now) return;
    const { lead, stages } = this.now;
    const { open } = this.steps;
    at("#lead-said").textContent = saidOf(lead.steps);
    // Also where somebody took the stage away, and another one is the first.
    const other = this.stage ? lead.stage && lead.stage !== this.stage : lead.stage || open !== "chat";
    if (other) return this.begin();
    if (!this.stage) return;
    const stage = stages.find(({ id }) => id === this.stage);
    this.behind(stage?.backdrop ?? "none");
    this.dressed(lead.wears, open === "look");
    at("#lead-finish").hidden = lead.steps.some(({ state }) => state !== "done");
    at("#lead-waits").hidden = !at("#lead-finish").hidden;
    at("#lead-air").textContent = stage?.revision ? `Revision ${stage.revision} is on air.` : "Nothing is on air yet.";
    const { last } = lead;
    at("#lead-last").textContent = last
      ? `The last line took ${last.took} ms from ${last.from} to your program.`
      : "No screen has painted a line yet.";
    this.makeUp(open === "look" && lead.quiet);
  }

  // Made-up lines where there are none, in the draft only.
  makeUp(wanted) {
    if (this.made === wanted) return;
    this.made = wanted;
    at("#lead-whose").textContent = wanted ? "made-up lines, until yours come" : "your chat, as it comes";
    attempt(() => send(`/stage/${this.stage}/rehearse`, { script: wanted ? MADE_UP : "" }));
  }

  behind(backdrop) {
    showBackdrop(backdrop);
    for (const button of document.querySelectorAll("[data-picture]"))
      button.setAttribute("aria-checked", button.dataset.picture === backdrop);
  }

  dressed(outfit, open) {
    at("#lead-outfits").hidden = !open;
    at("#lead-take").disabled = !outfit;
    at("#lead-take").textContent = outfit ? `Take ${names[outfit]}` : "Choose one below";
    this.outfits.wear(outfit);
    if (open) this.outfits.open(this.stage);
  }

  async takeOutfit() {
    const done = await attempt(() => send(`/stage/${this.stage}/put-on-air`));
    if (!done) return;
    this.steps.choose(null);
    say(`Revision ${done.revision} is on air: whoever has the link sees it.`);
  }

  pictures() {
    for (const button of document.querySelectorAll("[data-picture]"))
      button.addEventListener("click", () => this.choosePicture(button.dataset.picture));
    at("#lead-own-picture").addEventListener("change", ({ target }) => this.bring([...target.files].at(0)));
    addEventListener("paste", (event) => {
      const file = [...event.clipboardData.files].find(({ type }) => type.startsWith("image/"));
      if (file) this.bring(file);
    });
  }

  async choosePicture(backdrop) {
    if (!this.stage) await this.begin();
    if (this.stage) await attempt(() => send(`/stage/${this.stage}/backdrop`, { backdrop }));
  }

  async bring(file) {
    if (!this.stage) await this.begin();
    const [made] = file && this.stage ? await upload("backdrop", [file]) : [];
    if (made) this.choosePicture(`file:${made.id}`);
  }

  copy(what, words) {
    copy(String(this.link[what] ?? ""), what === "link" ? "The link" : words);
  }

  async leave(path) {
    this.leaving = true;
    if (this.stage) this.makeUp(false);
    this.leaving = Boolean(await attempt(() => send(path)));
    if (this.leaving) location.assign("/feeds");
  }
}

const lead = new Lead();
follow((frame) => lead.tell(frame));
keys({});
