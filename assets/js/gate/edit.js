// The rules as they are being edited: kept by the server only with "Keep edit".
import { sendJson } from "../house/send.js";

export class Edit {
  // Whether a request is under way that changes what is in force.
  busy = false;
  // The change that was asked for last.
  last = Promise.resolve();
  // How often an edit was begun anew: what was asked for before is not put into another one.
  begun = 0;

  constructor(state) {
    this.listeners = [];
    this.take(state);
  }

  // What is in force now; an edit that was begun is gone.
  take(state) {
    this.begun += 1;
    this.state = state;
    this.kept = state.rules;
    this.rules = state.rules;
    this.tell();
  }

  // Somebody else changed what is in force: what was edited here is an edit of that now.
  rebase(state) {
    this.state = state;
    this.kept = state.rules;
    this.tell();
  }

  get changed() {
    return this.rules !== this.kept;
  }

  // For the server: nothing where nothing was changed, since it knows what is in force.
  get sent() {
    return this.changed ? { rules: this.rules } : {};
  }

  kind(rule) {
    return this.state.kinds.find((kind) => kind.key === rule.kind);
  }

  heard(listener) {
    this.listeners.push(listener);
  }

  // Checked and completed by the server before it is drawn; one after another, each of what the one before came to.
  // to(rules): what they become; nothing: as they are
  change(to) {
    const { begun } = this;
    const work = async () => {
      const rules = this.begun === begun && to(this.rules);
      if (!rules) return;
      const answer = await sendJson("/gate/check", { rules });
      // Meanwhile it was undone, or is in force.
      if (this.begun !== begun) return;
      this.rules = answer.rules;
      this.tell();
    };
    const done = this.last.then(work);
    this.last = done.catch(() => {});
    return done;
  }

  set(id, values) {
    return this.change((rules) => rules.map((rule) => (rule.id === id ? { ...rule, ...values } : rule)));
  }

  remove(id) {
    return this.change((rules) => rules.filter((rule) => rule.id !== id));
  }

  add(kind) {
    const { id, ...blank } = this.state.kinds.find((one) => one.key === kind).blank;
    return this.change((rules) => [...rules, blank]);
  }

  move(id, steps) {
    return this.change((all) => {
      const from = all.findIndex((rule) => rule.id === id);
      const to = from + steps;
      if (to < 0 || to >= all.length) return null;
      const rules = [...all];
      rules.splice(to, 0, ...rules.splice(from, 1));
      return rules;
    });
  }

  // Once everything that was changed has been checked.
  async settled() {
    let before;
    do {
      before = this.last;
      await before;
    } while (before !== this.last);
  }

  undo() {
    this.begun += 1;
    this.rules = this.kept;
    this.tell();
  }

  tell() {
    for (const listener of this.listeners) listener();
  }
}
