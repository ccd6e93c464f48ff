// Pictures and films of the show's own: dropped or chosen, made anew by Bavard, then part of a piece.
import { button, icon, make } from "../house/elements.js";
import { attempt, sendFiles } from "../house/send.js";
import { asking } from "./asking.js";

const thumb = (file) => `/pictures/${file}-1.webp`;

// Sends files one after another; gives what became of each.
export async function upload(kind, files) {
  const page = document.querySelector("[data-stage]");
  const made = [];
  for (const file of files) {
    const form = new FormData();
    form.append("file", file);
    form.append("kind", kind);
    const done = await attempt(() => sendFiles(`/stage/${page.dataset.stage}/files`, form));
    if (done) made.push(done.file);
  }
  return made;
}

function chooser(label, accept, several, take) {
  const input = make("input", "is-sr-only");
  input.type = "file";
  input.accept = accept;
  input.multiple = several;
  input.setAttribute("aria-label", label);
  const box = make("label", "button drop-here", icon("upload"), make("span", "", label), input);
  const send = async (files) => {
    box.classList.add("busy");
    await take(files);
    box.classList.remove("busy");
  };
  input.addEventListener("change", async () => {
    const files = [...input.files];
    input.value = "";
    await send(files);
  });
  box.addEventListener("dragover", (event) => event.preventDefault());
  box.addEventListener("drop", (event) => {
    event.preventDefault();
    send([...event.dataTransfer.files].slice(0, several ? undefined : 1));
  });
  return box;
}

// One film, or one picture.
export function fileRow({ name, label, of: sort, want }) {
  const said = make("span", "said");
  const seen = make("img", "file-thumb");
  seen.alt = "";
  const off = button("Take off", "x", () => want({ [name]: null }), "button plain");
  const choose = chooser(`Choose a ${sort}`, `${sort === "film" ? "video" : "image"}/*`, false, async (files) => {
    const [made] = await upload(sort, files);
    if (made) want({ [name]: made.id });
  });
  return {
    element: make("div", "row tall", make("span", "label", label), make("div", "file-row", seen, said, off), choose),
    show(value) {
      said.textContent = value ? `A ${sort} is there.` : `No ${sort} yet.`;
      seen.hidden = !value || sort !== "picture";
      if (!seen.hidden) seen.src = thumb(value);
      off.hidden = !value;
    },
  };
}

// Pictures in turn, with seconds each.
export function filesRow({ name, label, want }) {
  const list = make("div", "file-list");
  let rows = [];
  const { give, told } = asking(want);
  const change = (next) => {
    rows = next;
    give({ [name]: rows });
  };
  const choose = chooser("Add pictures", "image/*", true, async (files) => {
    const made = await upload("picture", files);
    if (made.length > 0) change([...rows, ...made.map(({ id }) => ({ file: id, seconds: 8 }))]);
  });
  const rowOf = (row, index) => {
    const image = make("img");
    if (row.file) image.src = thumb(row.file);
    image.alt = `Picture ${index + 1}`;
    const seconds = make("input", "input figure");
    seconds.value = row.seconds;
    seconds.inputMode = "decimal";
    seconds.setAttribute("aria-label", `Seconds of picture ${index + 1}`);
    seconds.addEventListener("change", () => change(rows.map((one, at) => (at === index ? { ...one, seconds: seconds.value } : one))));
    const up = button("", "arrow-up", () => change(moved(rows, index, -1)), "button plain");
    up.setAttribute("aria-label", `Picture ${index + 1} earlier`);
    up.disabled = index === 0;
    const off = button("", "x", () => change(rows.filter((_, at) => at !== index)), "button plain");
    off.setAttribute("aria-label", `Take picture ${index + 1} off`);
    return make("div", "file-item", image, seconds, make("span", "said", "s"), up, off);
  };
  return {
    element: make("div", "row tall", make("span", "label", label), list, choose),
    show: told((value) => {
      rows = value;
      list.replaceChildren(...rows.map(rowOf));
    }),
  };
}

function moved(rows, index, by) {
  const next = [...rows];
  next.splice(index + by, 0, ...next.splice(index, 1));
  return next;
}
