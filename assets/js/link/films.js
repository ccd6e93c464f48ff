// The films of what plays that are heard, once this page is the one.
export class Films {
  // failed: told the id of what cannot be heard here
  constructor(root, failed) {
    this.root = root;
    this.failed = failed;
    // Of what plays (0), and of what plays beside it (1), as the clip of a shout-out.
    this.loud = new Map();
    this.heard = new WeakSet();
  }

  of = (id) => [...this.root.querySelectorAll(`video[data-alert="${id}"]`)];

  unmute(id, volume, beside = 0) {
    this.loud.set(beside, { id, volume });
    for (const video of this.of(id)) this.heard.delete(video);
    this.drawn();
  }

  // One that was told of before it stood on the picture, or that stands there anew, is heard from here on.
  drawn() {
    for (const { id, volume } of this.loud.values()) {
      for (const video of this.of(id)) {
        if (this.heard.has(video) || video.ended) continue;
        this.heard.add(video);
        this.beHeard(video, id, volume);
      }
    }
  }

  // A browser that lets nothing be heard by itself would not play it at all: there it goes on in silence, and another page is heard.
  beHeard(video, id, volume) {
    Object.assign(video, { muted: false, volume });
    video.play().catch((error) => {
      if (error.name !== "NotAllowedError") return;
      video.muted = true;
      video.play().catch(() => {});
      this.failed(id);
    });
  }

  quiet(id) {
    for (const [beside, one] of this.loud) if (one.id === id) this.loud.delete(beside);
    for (const video of this.of(id)) video.muted = true;
  }
}
