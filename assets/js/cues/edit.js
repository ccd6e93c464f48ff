// One cue being set: for which events, and what it plays.
import { button, icon, make } from "../house/elements.js";
import { say } from "../house/messages.js";
import { attempt, send, sendFiles, sendJson } from "../house/send.js";
import { rowFor } from "../stage/properties.js";

const GROUPS = {
  "For which": ["name", "kind", "on"],
  "Only where": [
    "amount_from",
    "amount_to",
    "currency",
    "months_from",
    "months_to",
    "number_from",
    "number_to",
    "feeds",
    "roles",
    "people",
    "first",
  ],
  "Not always": ["share_percent", "cool_down_s", "from_min", "to_min"],
  "What plays": ["words", "message", "length_s", "importance", "joins", "picture_place", "apart", "film"],
  "Its own type": [
    "own_type",
    "type_face",
    "type_size",
    "type_weight",
    "type_text_colour",
    "type_name_colour",
    "type_amount_colour",
    "type_message_colour",
  ],
  "What is heard": ["sound", "volume"],
  "What is said aloud": [
    "spoken_name",
    "spoken_words",
    "aloud",
    "spoken_by",
    "spoken_voice",
    "spoken_speed",
    "spoken_pitch",
    "spoken_volume",
    "spoken_most_s",
  ],
  "How it moves": ["motion_in", "words_in", "held", "words_wave", "motion_out"],
  "When its parts come": [
    "words_begins_s",
    "words_ends_s",
    "message_begins_s",
    "message_ends_s",
    "picture_begins_s",
    "picture_ends_s",
    "sound_begins_s",
    "flurry_begins_s",
  ],
  "Emotes that fly": ["flurry_count", "flurry_emotes", "flurry_way", "flurry_from"],
  "What it adds": ["adds", "adds_to"],
};
const OPEN = ["For which", "What plays"];
// What is chosen from the show's own files.
const FROM = { sound: "sounds", film: "films", spoken_voice: "voices" };
const SAID = "What is said aloud";

export class Edit {
  // state: fields and kinds as the sheet tells them; changed(sheet), removed(cue, sheet), close()
  constructor(root, state, acts) {
    Object.assign(this, { root, state, acts, rows: [] });
  }

  show(cue) {
    this.root.classList.toggle("open", Boolean(cue));
    if (!cue) {
      this.cue = null;
      return this.root.replaceChildren(make("p", "said cue-none", "Choose a cue to set it."));
    }
    const other = this.cue?.id !== cue.id;
    this.cue = cue;
    if (other) this.build();
    this.root.querySelector("#edit-title").textContent = cue.name;
    for (const row of this.rows) row.show(cue[row.name] ?? "", {});
    this.root.querySelector("#cue-picture").replaceChildren(cue.picture ? pictureOf(cue.picture) : icon("image"));
  }

  build() {
    this.rows = [];
    const groups = Object.entries(GROUPS).map(([title, names]) => {
      const made = names.map((name) => rowFor({ ...this.field(name), want: (values) => this.set(values), gesture: () => null }));
      this.rows.push(...made);
      const box = make("details", "more", make("summary", "", title), make("div", "rows", ...made.map((one) => one.element)));
      box.open = OPEN.includes(title);
      if (title === SAID) box.append(this.alike());
      return box;
    });
    this.root.replaceChildren(this.head(), ...groups, this.pictureRow());
    this.root.scrollTop = 0;
  }

  // One voice for all of a kind.
  alike() {
    const row = make("p", "cue-alike");
    const kind = this.state.kinds[this.cue.kind];
    row.append(
      button("Hear it", "play", () => this.acts.say(this.cue), "button plain"),
      button(
        `The same for all ${kind}`,
        "copy",
        () =>
          attempt(async () => {
            this.acts.changed(await send(`/dress/cues/cues/${this.cue.id}/spoken-alike`));
            say(`All ${kind} are said like that.`);
          }),
        "button plain",
      ),
    );
    return row;
  }

  // Where a part of what is seen is set: its group opened, and its field in hand.
  openAt(name) {
    const row = this.rows.find((one) => one.name === name);
    const element = row?.element ?? this.root.querySelector(".cue-picture-row");
    const box = element?.closest("details");
    if (box) box.open = true;
    const middle = (one) => (one.getBoundingClientRect().top + one.getBoundingClientRect().bottom) / 2;
    if (element) this.root.scrollTop += middle(element) - middle(this.root);
    element?.querySelector("input, textarea, select, button")?.focus({ preventScroll: true });
  }

  head() {
    const title = make("h2");
    title.id = "edit-title";
    const icons = [
      ["arrow-up", "Ask it before the one above", () => this.move("-1")],
      ["arrow-down", "Ask it after the one below", () => this.move("1")],
      ["trash-2", "Take this cue off the sheet", () => this.remove()],
      ["x", "Done with this cue", this.acts.close],
    ].map(([drawing, label, act]) => {
      const made = button("", drawing, act, "button plain");
      made.setAttribute("aria-label", label);
      return made;
    });
    return make("div", "cue-edit-head", title, ...icons);
  }

  field(name) {
    const field = this.state.fields[name];
    return FROM[name] ? { ...field, kind: "text", from: FROM[name] } : field;
  }

  set(values, id = this.cue.id) {
    return attempt(async () => this.acts.changed(await sendJson(`/dress/cues/cues/${id}`, values)));
  }

  move(by) {
    return attempt(async () => this.acts.changed(await send(`/dress/cues/cues/${this.cue.id}/move`, { by })));
  }

  async remove() {
    const { cue } = this;
    const told = await attempt(() => send(`/dress/cues/cues/${cue.id}/remove`));
    if (told) this.acts.removed(cue, told);
  }

  pictureRow() {
    const shown = make("span", "cue-picture");
    shown.id = "cue-picture";
    const input = make("input");
    Object.assign(input, { type: "file", accept: "image/*", className: "is-sr-only" });
    input.setAttribute("aria-label", "Picture of this cue");
    input.addEventListener("change", () => this.putPicture(input.files[0]));
    const off = button("Without", "x", () => this.putPicture(null), "button plain");
    return make("div", "cue-picture-row", shown, make("label", "button", icon("upload"), "Picture or animation", input), off);
  }

  putPicture(file) {
    const values = new FormData();
    if (file) values.set("file", file);
    return attempt(async () => this.acts.changed(await sendFiles(`/dress/cues/cues/${this.cue.id}/picture`, values)));
  }
}

function pictureOf(id) {
  const image = make("img");
  Object.assign(image, { alt: "", src: `/pictures/${id}-2.webp` });
  return image;
}
