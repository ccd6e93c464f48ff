// The bench for descriptions: what a platform sends, how it is described, what becomes of it.
import { keys } from "../house/keys.js";
import { follow } from "../house/desk.js";
import { say } from "../house/messages.js";
import { attempt, send, sendFiles, sendJson } from "../house/send.js";
import { Becomes } from "./becomes.js";
import { Editor } from "./editor.js";
import { Frames } from "./frames.js";
import { Recording } from "./recording.js";

const at = (id) => document.querySelector(`#${id}`);
const page = document.querySelector(".describe-page");
const READ_AFTER_MS = 250;
const MOST_FRAMES = 500;

class Bench {
  constructor() {
    this.id = page.dataset.id;
    this.samples = JSON.parse(page.dataset.samples);
    this.frames = [];
    this.chosen = 0;
    this.asked = 0;
    this.editor = new Editor({ text: page.dataset.text, changed: () => this.changed() });
    this.list = new Frames({ choose: (index) => this.choose(index), pin: (index) => this.pin(index), renew: (index) => this.renew(index) });
    this.becomes = new Becomes({ offer: (what) => this.offer(what) });
    this.recording = new Recording({
      path: this.path,
      given: () => ({ text: this.editor.text, samples: [] }),
      came: (frames) => this.add(frames),
      told: (told) => {
        this.told = told;
        this.check();
      },
    });
    at("keep").addEventListener("click", () => this.keep());
    this.read();
  }

  get path() {
    return `/feeds/describe/${this.id}`;
  }

  // Samples stand before what was recorded.
  get all() {
    return [...this.samples.map((sample) => sample.frame), ...this.frames];
  }

  changed() {
    this.unkept = true;
    clearTimeout(this.waiting);
    this.waiting = setTimeout(() => this.read(), READ_AFTER_MS);
    this.check();
  }

  add(frames) {
    if (frames.length === 0) return;
    this.frames.push(...frames);
    this.frames.splice(0, Math.max(0, this.frames.length - MOST_FRAMES + this.samples.length));
    this.read();
  }

  choose(index) {
    this.chosen = index;
    this.read();
  }

  // Asks what becomes of it all; of what was asked before, nothing is shown any more.
  async read() {
    this.asked += 1;
    const { asked } = this;
    const given = { text: this.editor.text, samples: this.samples, frames: this.all, chosen: this.chosen };
    const report = await attempt(() => sendJson(`${this.path}/read`, given));
    if (!report || asked !== this.asked) return;
    this.report = report;
    at("which").selectedOptions[0].textContent = report.name;
    this.editor.mark(report.faults);
    this.recording.ask(report.asks);
    this.list.draw({ frames: this.all, report, chosen: this.chosen, samples: this.samples.length });
    this.becomes.draw(report, this.all[this.chosen]);
    this.check();
  }

  // A frame becomes a sample, or is none any more.
  pin(index) {
    if (index < this.samples.length) this.frames.unshift(this.samples.splice(index, 1)[0].frame);
    else {
      const from = index - this.samples.length;
      const [frame] = this.frames.splice(from, 1);
      this.samples.push({ frame, becomes: this.report.frames[index].becomes });
      if (this.chosen === index) this.chosen = this.samples.length - 1;
    }
    this.changed();
    this.read();
  }

  // What becomes of a sample now is what should.
  renew(index) {
    this.samples[index].becomes = this.report.frames[index].becomes;
    this.changed();
  }

  async offer({ item, ...what }) {
    const given = { text: this.editor.text, samples: this.samples, frame: this.all[this.chosen], item, ...what };
    const done = await attempt(() => sendJson(`${this.path}/offer`, given));
    if (done) this.editor.put(done.text);
  }

  async keep() {
    const done = await attempt(() => sendJson(`${this.path}/keep`, { text: this.editor.text, samples: this.samples }));
    if (!done) return;
    this.unkept = false;
    this.key = done.usable ? done.key : null;
    this.used = done.used;
    this.check();
    say(done.usable ? "It is kept, and can be connected." : "It is kept. It cannot be connected before what is wrong is mended.");
  }

  // What has to hold before it counts.
  check() {
    const faults = this.report?.faults ?? [];
    const otherwise = (this.report?.samples ?? []).filter(Boolean).length;
    const checks = [
      [faults.length === 0, faults.length === 0 ? "Fits the schema" : `${faults.length} wrong in the text`],
      this.samples.length === 0
        ? [null, "No samples yet: pin a frame of each kind"]
        : [
            otherwise === 0,
            otherwise === 0
              ? `${this.samples.length} pinned ${this.samples.length === 1 ? "frame reads" : "frames read"} as before`
              : `${otherwise} of ${this.samples.length} pinned frames ${otherwise === 1 ? "reads" : "read"} otherwise than before`,
          ],
      ...this.recorded(),
    ];
    this.becomes.checks(checks);
    at("keep").disabled = this.unkept === false;
    at("connect").hidden = !this.key || this.unkept;
    at("connect").href = `/feeds/?connect=${encodeURIComponent(this.key ?? "")}`;
    at("kept-said").textContent = this.unkept
      ? "Not kept yet."
      : this.used
        ? `Read by ${this.used === 1 ? "one feed" : `${this.used} feeds`}.`
        : "";
  }

  recorded() {
    const { told } = this;
    if (!told) return [[null, "Not recorded yet"]];
    const well = told.state === "live" || told.state === "nobody_broadcasting";
    const checks = [[well || (told.over ? false : null), told.words]];
    if (told.twice !== null && well)
      checks.push([
        told.twice === 0,
        told.twice === 0 ? "Comes back after a cut without a line twice" : `${told.twice} lines came twice after a cut`,
      ]);
    return checks;
  }
}

const open = ({ id }) => location.assign(`/feeds/describe/${id}`);
follow(() => {});
for (const button of document.querySelectorAll("[data-way]"))
  button.addEventListener("click", async () => {
    const made = await attempt(() => send("/feeds/describe/", { way: button.dataset.way }));
    if (made) open(made);
  });
at("bring")?.addEventListener("change", async ({ target }) => {
  const form = new FormData();
  form.set("file", target.files[0]);
  const made = await attempt(() => sendFiles("/feeds/describe/", form));
  if (made) open(made);
});
at("which")?.addEventListener("change", ({ target }) => open({ id: target.value }));

const table = {};
if (page.dataset.id) {
  const bench = new Bench();
  at("remove").addEventListener("click", async () => {
    if (at("remove").dataset.sure !== "yes") {
      at("remove").dataset.sure = "yes";
      at("remove").lastChild.textContent = "Really take it away";
      return;
    }
    if (!(await attempt(() => send(`${bench.path}/remove`)))) return;
    bench.unkept = false;
    location.assign("/feeds/describe/");
  });
  const sheet = at("paste-sheet");
  const error = at("paste-error");
  const openSheet = () => {
    error.hidden = true;
    sheet.showModal();
    at("paste-text").focus();
  };
  at("paste").addEventListener("click", openSheet);
  at("paste-close").addEventListener("click", () => sheet.close());
  at("paste-file").addEventListener("change", async ({ target }) => {
    at("paste-text").value = await target.files[0].text();
  });
  at("paste-form").addEventListener("submit", async (event) => {
    event.preventDefault();
    error.hidden = true;
    try {
      const { frames } = await sendJson(`${bench.path}/frames`, { text: at("paste-text").value });
      at("paste-text").value = at("paste-file").value = "";
      sheet.close();
      bench.add(frames);
    } catch (refused) {
      error.hidden = false;
      error.textContent = refused.message;
    }
  });
  addEventListener("beforeunload", (event) => bench.unkept && event.preventDefault());
  Object.assign(table, {
    "Ctrl s": ["Keep it", () => bench.keep()],
    p: ["Paste what it sends", openSheet],
    ArrowUp: ["The frame before", () => bench.choose(Math.max(0, bench.chosen - 1))],
    ArrowDown: ["The frame after", () => bench.choose(Math.min(bench.all.length - 1, bench.chosen + 1))],
  });
  // Also while somebody writes.
  at("text").addEventListener("keydown", (event) => {
    if (!(event.ctrlKey || event.metaKey) || event.key !== "s") return;
    event.preventDefault();
    bench.keep();
  });
}
keys(table);
