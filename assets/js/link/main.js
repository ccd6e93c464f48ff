import { Doubt } from "./doubt.js";
import { Picture } from "./picture.js";
import { Report } from "./report.js";
import { Socket } from "./socket.js";

const { socket: path, options, side, notUnderstood } = document.body.dataset;

// Whoever edits a stage looks into it.
export let picture = null;

if (path) {
  picture = new Picture(document.querySelector("#stage"), JSON.parse(options), side, (id) => report.paint(id));
  // Most screens are heard never; the one that is loads what it takes then.
  let sounds = null;
  const hear = async (what) => {
    const { Sounds } = await import("./sounds.js");
    sounds ??= new Sounds(path.replace(/\/live$/, ""), picture, (id) => report.silent(id));
    sounds.hear(what);
  };
  const told = { revision: -1 };
  const tell = () => {
    sounds?.drawn();
    if (told.revision === picture.revision) return;
    told.revision = picture.revision;
    report.tell();
  };
  const doubt = new Doubt(document.querySelector("#stage"), () => picture.doubtMs);
  const socket = new Socket(path, {
    current: () => doubt.sure(),
    only: hear,
    open: () => report.tell(),
    replaced: () => picture.empty(),
    frame: (frame) => {
      picture.apply(frame);
      tell();
    },
    gone: (frame) => picture.takeAway(frame),
    missed: (frames) => {
      picture.applyMissed(frames);
      tell();
    },
  });
  const report = new Report(socket, picture, JSON.parse(notUnderstood));
}
