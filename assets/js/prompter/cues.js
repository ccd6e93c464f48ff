// The queue of alerts: what plays, what waits, and what a moderator can do about it.
import { button, icon, make } from "../house/elements.js";
import { KeptRows } from "../house/kept_rows.js";
import { act, setup } from "./door.js";

const MOST_SHOWN = 4;
export const OWN_KEYS = ["5", "6", "7", "8", "9"];

export class Cues {
  constructor() {
    this.box = document.querySelector("#cues");
    this.rows = new KeptRows(this.box);
    this.own = [];
    this.menu = document.querySelector("#more-sheet").appendChild(make("div", "own-cues"));
  }

  // One of the host's own, by its place.
  play(index) {
    const cue = this.own[index];
    if (cue) act("cue_own", { text: cue.id }, `“${cue.name}” plays.`);
  }

  // What happens by a key, with its key.
  offer(own) {
    if (JSON.stringify(own) === JSON.stringify(this.own)) return;
    this.own = own;
    if (!setup.acts) return;
    this.menu.replaceChildren(
      ...own.slice(0, OWN_KEYS.length).map((cue, index) => {
        const row = button("", "bell-ring", () => this.play(index), "");
        row.append(make("span", "", `Play “${cue.name}”`), make("kbd", "", OWN_KEYS[index]));
        return row;
      }),
    );
  }

  // cues: as Ruby's CueDesk#brief
  take({ playing, waiting, paused, approve, own }) {
    this.offer(own);
    this.box.hidden = !playing && waiting.length === 0 && !paused;
    if (this.box.hidden) return;
    const rows = waiting.slice(0, MOST_SHOWN).map((one) => ({ key: one.id, told: [one, approve], draw: () => this.row(one, approve) }));
    const more = waiting.length - rows.length;
    if (more > 0) rows.push({ key: "more", told: more, draw: () => make("p", "said", `and ${more} more`) });
    this.rows.show([{ key: "head", told: [playing, paused], draw: () => this.head(playing, paused) }, ...rows]);
  }

  head(playing, paused) {
    const now = playing
      ? make("span", "cue-playing", icon("play"), make("b", "", playing))
      : make("span", "said", paused ? "Alerts are paused" : "Alerts wait");
    const row = make("div", "cue-line", now);
    if (!setup.acts) return row;
    const does = [button(paused ? "Go on" : "Pause", null, () => act(paused ? "cue_go_on" : "cue_pause"), "button plain push")];
    if (playing) does.push(button("Skip", null, () => act("cue_skip"), "button plain"));
    row.append(...does);
    return row;
  }

  row({ id, words, approved }, approve) {
    const row = make("div", "cue-line", make("span", "", words));
    if (!setup.acts) return row;
    if (approve && !approved) row.append(button("Let it play", null, () => act("cue_play", { line: id }), "button push"));
    const off = button("", "x", () => act("cue_off", { line: id }), "button plain");
    off.setAttribute("aria-label", `Take “${words}” out`);
    row.append(off);
    return row;
  }
}
