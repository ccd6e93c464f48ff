// The queue of alerts: what plays, what waits, and what a moderator can do about it.
import { button, icon, make } from "../house/elements.js";
import { act, setup } from "./door.js";

const MOST_SHOWN = 4;

export class Cues {
  constructor() {
    this.box = document.querySelector("#cues");
  }

  // cues: as Ruby's CueDesk#brief
  take({ playing, waiting, paused, approve }) {
    this.box.hidden = !playing && waiting.length === 0 && !paused;
    if (this.box.hidden) return;
    const rows = waiting.slice(0, MOST_SHOWN).map((one) => this.row(one, approve));
    const more = waiting.length - rows.length;
    this.box.replaceChildren(this.head(playing, paused), ...rows, ...(more > 0 ? [make("p", "said", `and ${more} more`)] : []));
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
