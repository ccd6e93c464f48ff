// What this page was chosen to be heard with: Ruby tells one page alone, so that nothing sounds twice.
export class Sounds {
  // base: the page's own address; failed: told the id of what cannot be played here
  constructor(base, picture, failed) {
    this.base = base;
    this.picture = picture;
    this.failed = failed;
    this.playing = null;
    this.films = null;
  }

  // The picture was drawn anew.
  drawn() {
    this.films?.drawn();
  }

  hear({ sound, stop }) {
    if (stop !== undefined) this.quiet(stop);
    if (sound) this.play(sound);
  }

  // i id, u address, said how loud it is read aloud, say what this screen's own voice would say, f whether the film's own sound is meant,
  // v volume, from ms, w how many ms it waits; b: beside what else sounds, as the clip of a shout-out
  async play({ i, u, said, say, f, b, v, from, w = 0 }) {
    if (b) return this.unmute(i, v, b);
    // Told again while it plays, as after a line that was cut: it goes on as it is.
    if (from > 0 && this.playing?.id === i) return;
    this.stop();
    const playing = { id: i, stopped: false };
    this.playing = playing;
    if (f) this.unmute(i, v);
    const parts = [[u, v], said ? [`${this.base}/said/${i}.wav`, said, say] : []].filter(([address]) => address);
    if (w > from) await new Promise((resolve) => setTimeout(resolve, w - from));
    let late = Math.max(0, from - w) / 1000;
    for (const [address, volume, own] of parts) {
      if (playing.stopped) return;
      if (own && (await (await import("./spoken.js")).speak(own, volume, playing))) continue;
      const done = await this.one(address, volume, late, playing);
      if (!done) return;
      late = Math.max(0, late - done.seconds);
    }
  }

  // Gives how long it is once it is over; null where it cannot be played.
  one(address, volume, late, playing) {
    const audio = new Audio(address);
    audio.volume = volume;
    playing.audio = audio;
    return new Promise((resolve) => {
      audio.addEventListener("loadedmetadata", () => {
        if (late >= audio.duration) return resolve({ seconds: audio.duration });
        if (late > 0) audio.currentTime = late;
        audio.play().then(
          () => {
            document.documentElement.dataset.heard = address;
          },
          () => this.refuse(playing, resolve),
        );
      });
      audio.addEventListener("ended", () => resolve({ seconds: audio.duration }));
      audio.addEventListener("error", () => this.refuse(playing, resolve));
    });
  }

  refuse(playing, resolve) {
    if (!playing.stopped) this.failed(playing.id);
    resolve(null);
  }

  // What few cues want is not loaded before one does.
  async unmute(...told) {
    this.quieted = null;
    const { Films } = await import("./films.js");
    this.films ??= new Films(this.picture.root, this.failed);
    if (this.quieted !== told[0]) this.films.unmute(...told);
  }

  quiet(id) {
    if (this.playing?.id === id) this.stop();
    this.quieted = id;
    this.films?.quiet(id);
  }

  stop() {
    if (!this.playing) return;
    this.playing.stopped = true;
    this.playing.audio?.pause();
    this.playing.hush?.();
    this.playing = null;
  }
}
