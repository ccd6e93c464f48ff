// A microphone as a voice in a room: the ear, the line, and what was chosen, which is kept in this browser.
import { Ear } from "./ear.js";
import { levelOf, NO_FLOOR, SILENCE } from "./level.js";
import { Line } from "./line.js";

const KEPT = "bavard.microphone";
const USUAL = { on: false, device: "", gain: 0, floor: NO_FLOOR, muted: false };

function kept() {
  try {
    return { ...USUAL, ...JSON.parse(localStorage.getItem(KEPT)) };
  } catch {
    return { ...USUAL };
  }
}

// What a person is told of their microphone, by the first that holds.
export function wordsOf({ listens, open, talks, room, off, gone }, { muted, on }) {
  if (gone) return "This link is not valid any more. Ask for another one.";
  if (off) return off;
  if (!on) return "Your microphone is off.";
  if (!listens) return "Waiting for the microphone …";
  if (!open || room === null) return "The line is lost. It comes back by itself.";
  if (muted) return "Muted. Nobody sees you talk.";
  return talks ? "You are shown as talking." : "Heard. Say something.";
}

export class Voice {
  // changed(voice): anything but the level; heard(level, voice): a level, as it is sent
  constructor({ changed, heard = () => {} }) {
    this.changed = () => changed(this);
    this.heard = heard;
    this.settings = kept();
    // listens: the microphone is heard; open: the line holds; talks: shown as talking; off, gone: words, or nothing
    this.state = { listens: false, open: false, talks: false, room: null, trouble: null, off: null, gone: false };
    this.ear = new Ear({
      level: (meanSquare) => this.level(levelOf(meanSquare, this.settings)),
      state: (listens, trouble = null) => this.become({ listens, trouble, talks: false }),
    });
  }

  become(what) {
    Object.assign(this.state, what);
    this.changed();
  }

  keep(what) {
    Object.assign(this.settings, what);
    try {
      localStorage.setItem(KEPT, JSON.stringify(this.settings));
    } catch {
      // Without room or leave to keep it, it counts for now.
    }
    this.changed();
  }

  connect(path) {
    this.line ??= new Line(path, {
      told: (what) => this.told(what),
      state: (open) => this.become(open ? { open } : { open, talks: false }),
      gone: () => {
        this.ear.off();
        this.become({ gone: true });
      },
    });
    this.line.muted = this.settings.muted;
  }

  told(what) {
    if (what.room !== undefined) this.become({ room: what.room, you: what.you, off: null });
    if (what.off !== undefined) this.become({ off: what.off, talks: false });
    if (what.talks !== undefined) this.become({ talks: what.talks });
  }

  on() {
    this.keep({ on: true });
    return this.ear.listen(this.settings.device);
  }

  off() {
    this.keep({ on: false });
    this.ear.off();
    this.line?.level(SILENCE);
    this.heard(SILENCE, this);
  }

  mute(muted = !this.settings.muted) {
    this.keep({ muted });
    this.line?.mute(muted);
  }

  choose(device) {
    this.keep({ device });
    if (this.settings.on) this.ear.listen(device);
  }

  // Those there are, into a choice; also the one that was chosen before and is not there now.
  async list(select) {
    const devices = await this.ear.devices();
    const { device } = this.settings;
    const gone = device && !devices.some((one) => one.deviceId === device);
    select.replaceChildren(
      new Option("The usual one", ""),
      ...devices.map((one, index) => new Option(one.label || `Microphone ${index + 1}`, one.deviceId)),
      ...(gone ? [new Option("The one chosen before, which is not there", device)] : []),
    );
    select.value = device;
  }

  level(level) {
    this.line?.level(level);
    this.heard(level, this);
  }
}
