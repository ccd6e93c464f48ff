// Edits on their way to the draft: one after another, and within one gesture only the newest waits.
import { attempt, sendJson } from "../house/send.js";

let gestures = 0;

export class Edits {
  constructor(stageId) {
    this.path = `/stage/${stageId}/edits`;
    this.waiting = [];
    this.busy = false;
  }

  // A drag or a slider's way from press to release: one step for undo.
  gesture() {
    gestures += 1;
    return `${Date.now()}-${gestures}`;
  }

  get quiet() {
    return !this.busy && this.waiting.length === 0;
  }

  // Gives the edit as it was read, or nothing where it was refused.
  send(edit) {
    const last = this.waiting.at(-1);
    const same = last && edit.gesture && last.edit.gesture === edit.gesture && last.edit.do === edit.do;
    return new Promise((done) => {
      if (same) {
        last.edit = edit.do === "many" ? edit : { ...edit, values: { ...last.edit.values, ...edit.values } };
        last.done.push(done);
      } else {
        this.waiting.push({ edit, done: [done] });
      }
      this.work();
    });
  }

  async work() {
    if (this.busy) return;
    this.busy = true;
    while (this.waiting.length > 0) {
      const { edit, done } = this.waiting.shift();
      const answer = await attempt(() => sendJson(this.path, edit));
      for (const tell of done) tell(answer && { ...answer.edit, at: answer.at });
    }
    this.busy = false;
  }
}
