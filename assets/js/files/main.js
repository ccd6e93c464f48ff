// Sounds, films and pictures of the show: heard, named, put on shelves, brought and taken away.
import { follow } from "../house/desk.js";
import { dropping } from "../house/dropping.js";
import { button, icon, make, svg } from "../house/elements.js";
import { keys } from "../house/keys.js";
import { say } from "../house/messages.js";
import { attempt, get, Refused, send, sendFiles } from "../house/send.js";
import { count } from "../house/words.js";

const KINDS = { sound: "Sounds", film: "Films", picture: "Pictures" };
const NO_SHELF = "On no shelf";
const HEIGHT = 36;
const audio = new Audio();
const state = { playing: null, sheet: {} };

follow(() => {});

function take(sheet) {
  state.sheet = sheet;
  const many = Object.keys(KINDS).map((kind) => count(sheet[`${kind}s`].length, kind));
  document.querySelector("#summary").textContent = many.join(", ");
  const [files, megabytes] = ["files", "megabytes"].map((what) =>
    sheet.of_all[what].map((number) => count(number, "", "").trim()).join(" of "),
  );
  document.querySelector("#room").textContent = `Room: ${files} files, with the pictures of people and cues, and ${megabytes} MB.`;
  for (const kind of Object.keys(KINDS)) draw(kind, sheet[`${kind}s`]);
}

function draw(kind, files) {
  const box = document.querySelector(`#${kind}s`);
  const here = box.contains(document.activeElement) ? document.activeElement.getAttribute("aria-label") : null;
  const none = {
    sound: "No sound yet. Drop WAV, MP3, Ogg, FLAC or M4A here, up to a minute long.",
    film: "No film yet. Drop WebM, MP4 or Ogg here, up to ten minutes long.",
    picture: "No picture yet. Those of a cue are brought on the cue sheet.",
  }[kind];
  const shelves = new Map();
  for (const file of files) {
    const shelf = kind === "sound" ? file.shelf || NO_SHELF : "";
    shelves.set(shelf, [...(shelves.get(shelf) ?? []), file]);
  }
  const rows = [...shelves]
    .sort(([one], [other]) => one.localeCompare(other))
    .flatMap(([shelf, all]) => [shelf ? make("h3", "file-shelf", shelf) : null, ...all.map((file) => row(kind, file))]);
  box.replaceChildren(make("h2", "", KINDS[kind]), ...(files.length > 0 ? rows : [make("p", "said file-none", none)]).filter(Boolean));
  // Whoever was in a field stays in it.
  if (here) box.querySelector(`[aria-label="${CSS.escape(here)}"]`)?.focus();
}

function row(kind, file) {
  const seen = { sound: soundOf, film: filmOf, picture: pictureOf }[kind](file);
  const name = field(file.name, `Name of ${file.name}`, 120, (value) => keep(kind, file, { name: value }));
  const used = file.used.length > 0 ? usedBy(file.used.join(", ")) : null;
  const off = button("", "trash-2", () => remove(kind, file), "button plain");
  off.setAttribute("aria-label", `Take ${file.name} away`);
  off.disabled = file.used.length > 0;
  if (off.disabled) off.title = `Plays with ${file.used.join(", ")}: choose another one there first.`;
  return make("div", `file-row ${kind}`, ...seen, make("div", "file-about", name, facts(kind, file), used), shelfOf(kind, file), off);
}

function usedBy(cues) {
  const chip = make("span", "chip", icon("bell-ring"), make("span", "chip-words", cues));
  chip.title = cues;
  return chip;
}

function field(value, label, longest, changed) {
  const input = make("input", "input file-name");
  Object.assign(input, { value, maxLength: longest });
  input.setAttribute("aria-label", label);
  input.addEventListener("change", () => changed(input.value));
  return input;
}

function facts(kind, file) {
  const size = file.bytes > 1e6 ? `${(file.bytes / 1e6).toFixed(1)} MB` : `${Math.ceil(file.bytes / 1000)} kB`;
  const length = file.seconds ? [`${file.seconds.toFixed(1)} s`] : [];
  const extent = file.width ? [`${file.width} × ${file.height}`] : [];
  const loud = kind === "sound" ? [`${decibels(file.was)} → ${decibels(file.loudness)} LUFS`] : [];
  return make("span", "said", [...length, ...extent, ...loud, size].join(" · "));
}

const decibels = (value) => value.toFixed(1).replace("-", "−");

// A shelf is where its sounds say they stand.
function shelfOf(kind, file) {
  if (kind !== "sound") return make("span");
  const input = field(file.shelf ?? "", `Shelf of ${file.name}`, 40, (value) => keep(kind, file, { shelf: value }));
  input.placeholder = "Shelf";
  return input;
}

function soundOf(file) {
  const play = button("", "play", () => listen(file, play), "button");
  play.dataset.sound = file.id;
  play.setAttribute("aria-label", `Hear ${file.name}`);
  return [play, wave(file)];
}

// How loud it is at each place, beside its loudest one: how loud that is, the figures say.
function wave(file) {
  const drawn = svg("svg", { class: "wave", viewBox: `0 0 ${file.peaks.length * 3} ${HEIGHT}`, preserveAspectRatio: "none", role: "img" });
  drawn.setAttribute("aria-label", `Wave form of ${file.name}`);
  const most = Math.max(1, ...file.peaks);
  const bars = file.peaks.map((peak, at) => {
    const height = Math.max(1, (peak / most) * HEIGHT);
    return svg("rect", { x: at * 3, y: (HEIGHT - height) / 2, width: 2, height });
  });
  drawn.append(...bars);
  return drawn;
}

function filmOf(file) {
  const video = make("video", "file-film");
  Object.assign(video, { src: `/films/${file.id}.webm`, muted: true, preload: "metadata", controls: true });
  return [video];
}

function pictureOf(file) {
  const image = make("img", "file-picture");
  Object.assign(image, { alt: "", src: `/pictures/${file.id}-2.webp` });
  return [image];
}

function listen(file, play) {
  const again = state.playing === file.id;
  audio.pause();
  show(null);
  if (again) return;
  audio.src = `/sounds/${file.id}.ogg`;
  audio.play().then(
    () => show(file.id, play),
    () => say(`“${file.name}” cannot be played here.`, { bad: true }),
  );
}

function show(id) {
  state.playing = id;
  for (const one of document.querySelectorAll("[data-sound]")) {
    const on = one.dataset.sound === id;
    one.replaceChildren(icon(on ? "square" : "play"));
    one.setAttribute("aria-pressed", on);
  }
}

audio.addEventListener("ended", () => show(null));

const keep = (kind, file, values) => attempt(async () => take(await send(`/dress/files/${kind}/${file.id}`, values)));

async function remove(kind, file) {
  const sheet = await attempt(() => send(`/dress/files/${kind}/${file.id}/remove`));
  if (!sheet) return;
  take(sheet);
  say(`${file.name} is gone.`, { undo: () => attempt(async () => take(await send(`/dress/files/${kind}/${file.id}/put-back`))) });
}

// One after another: each is made anew, which takes a moment.
async function bring(files) {
  const refused = [];
  for (const [at, file] of files.entries()) {
    document.querySelector("#summary").textContent = `Making ${at + 1} of ${files.length} …`;
    const values = new FormData();
    values.set("kind", { audio: "sound", video: "film", image: "picture" }[file.type.split("/")[0]] ?? "");
    values.set("file", file);
    try {
      take(await sendFiles("/dress/files/bring", values));
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      refused.push(error.message);
    }
  }
  take(state.sheet);
  if (refused.length > 0) say(refused.join(" "), { bad: true });
  else say(`${count(files.length, "file")} taken.`);
}

const input = document.querySelector("#bring-files");
dropping(bring, { opener: document.querySelector("#bring"), input });
attempt(async () => take(await get("/dress/files/sheet")));
keys({ u: ["Add files", () => input.click()] });
