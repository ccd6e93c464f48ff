// What people with a role did, as it happens: who, what, when; each can be taken back.
import { button, make } from "../house/elements.js";
import { clockSeconds } from "../house/words.js";
import { act, setup } from "./door.js";

const WORDS = {
  pull: "pulled a line of",
  let_go: "let go a line of",
  leave_out: "left out",
  take_back: "took back",
  pin: "pinned a line of",
  unpin: "unpinned a line of",
  large: "put on the stage large a line of",
  small: "took off the stage a line of",
  read: "marked as read a line of",
  answered: "marked as answered a line of",
  unmark: "unmarked a line of",
  note: "wrote a note on",
  rules: "changed the rules:",
  brake: "used the brake",
  hold: "changed the hold",
  role: "changed the role of",
  invite: "invited",
  uninvite: "took back the invitation of",
  remove: "removed",
  erase: "erased what a viewer wrote:",
  keep: "chose how long the log is kept:",
  cue_skip: "skipped an alert:",
  cue_pause: "paused alerts",
  cue_go_on: "let alerts go on",
  cue_play: "let an alert play:",
  cue_off: "took an alert out:",
  cue_clear: "emptied the queue of alerts",
  cue_again: "played again:",
  cue_own: "played:",
  shout_out: "introduced",
  air: "put on air:",
  restore: "brought back:",
  answer: "answered in chat:",
  begin: "began the broadcast",
  end: "ended the broadcast",
};
export const sentence = (deed) => `${deed.by} ${WORDS[deed.what] ?? deed.what}${deed.about ? ` ${deed.about}` : ""}`;

export class Deeds {
  constructor() {
    this.all = [];
    this.listeners = [];
  }

  take(deeds) {
    for (const deed of deeds) {
      this.all = this.all.filter((one) => one.id !== deed.id);
      this.all.push(deed);
    }
    this.all.sort((one, other) => one.id - other.id);
    for (const listener of this.listeners) listener();
  }

  // The newest that is not taken back, of anybody.
  undoLast() {
    const last = this.all.findLast((deed) => deed.undone === null && deed.back);
    if (last) act("undo", { deed: last.id });
  }

  rows(deeds = this.all) {
    return deeds
      .slice(-60)
      .reverse()
      .map((deed) => {
        const row = make("li", deed.undone ? "undone" : "", make("time", "figure", clockSeconds(deed.at)), make("bdi", "", sentence(deed)));
        if (deed.undone) row.append(make("span", "said", `taken back by ${deed.undone}`));
        else if (setup.acts && deed.back) row.append(button("Undo", null, () => act("undo", { deed: deed.id }), "button plain"));
        return row;
      });
  }
}
