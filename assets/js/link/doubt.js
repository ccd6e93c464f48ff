// A screen that hears nothing cannot know what was taken away meanwhile: after a while chat leaves it, until it is of now again.
const LOOK_EVERY_MS = 500;

export class Doubt {
  // root: of the picture; after(): milliseconds of silence, or nothing where chat rather stays
  constructor(root, after) {
    this.root = root;
    this.after = after;
    this.sure();
    setInterval(() => this.look(), LOOK_EVERY_MS);
  }

  // What is shown is of now.
  sure() {
    this.at = [performance.now(), Date.now()];
    this.root.classList.remove("doubted");
  }

  // By the clock that stands still while a computer sleeps, and by the one that does not.
  look() {
    const [time, date] = this.at;
    const silent = Math.max(performance.now() - time, Date.now() - date);
    const after = this.after();
    this.root.classList.toggle("doubted", Boolean(after) && silent > after);
  }
}
