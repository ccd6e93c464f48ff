// The rules as they are being edited: kept by the server only with "Keep edit".
import { sendJson } from "../house/send.js";

export class Edit {
  // Whether a request is under way that changes what is in force.
  busy = false;

  constructor(state) {
    this.listeners = [];
    this.take(state);
  }

  // What is in force now; an edit that was begun is gone.
  take(state) {
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

  // Checked and completed by the server before it is drawn.
  async change(rules) {
    const answer = await sendJson("/gate/check", { rules });
    this.rules = answer.rules;
    this.tell();
  }

  set(id, values) {
    return this.change(this.rules.map((rule) => (rule.id === id ? { ...rule, ...values } : rule)));
  }

  remove(id) {
    return this.change(this.rules.filter((rule) => rule.id !== id));
  }

  add(kind) {
    const { id, ...blank } = this.state.kinds.find((one) => one.key === kind).blank;
    return this.change([...this.rules, blank]);
  }

  move(id, steps) {
    const from = this.rules.findIndex((rule) => rule.id === id);
    const to = from + steps;
    if (to < 0 || to >= this.rules.length) return;
    const rules = [...this.rules];
    rules.splice(to, 0, ...rules.splice(from, 1));
    return this.change(rules);
  }

  undo() {
    this.rules = this.kept;
    this.tell();
  }

  tell() {
    for (const listener of this.listeners) listener();
  }
}
