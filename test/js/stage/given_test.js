import assert from "node:assert/strict";
import { before, beforeEach, test } from "node:test";
import { all, called, find, openPage, page, pressable, said, serve, settled, type } from "../support/page.js";

// Rows that set what is given by a file, a face or a colour; and the show's own colours and faces.

const HOUSE = {
  colours: { ink: { name: "Ink", value: "#101418" }, c1: { name: "Reed", value: "#63c58a" } },
  faces: { text: { name: "Text", value: "Fraunces" }, f1: { name: "Odd", value: "Larch" } },
};

let rows;
let wants;
let gestures;
const want = (values, how) => {
  wants.push(how === undefined ? values : [values, how]);
};
const gesture = () => {
  gestures += 1;
  return `g${gestures}`;
};
const put = (row, ...shown) => {
  find("#here").replaceChildren(row.element);
  row.show(...shown);
  return row;
};
const input = (field, value) => {
  field.value = value;
  field.dispatchEvent(new globalThis.Event("input", { bubbles: true }));
};
const file = (name) => new page.window.File(["x"], name);
async function choose(field, ...files) {
  Object.defineProperty(field, "files", { configurable: true, value: files });
  field.dispatchEvent(new globalThis.Event("change", { bubbles: true }));
  await settled();
}

before(async () => {
  openPage({
    html: `<main data-stage="4"></main><aside id="inspector" data-faces='["Fraunces","Karla"]' data-own-faces='[["file:9","My face"]]'></aside>
      <div id="messages"></div><div id="here"></div><div id="frame"></div>
      <div id="backdrops"><label><input type="radio" name="backdrop" value="thermal"></label></div>
      <label id="backdrop-box"><input type="file" id="backdrop-files"></label>`,
  });
  globalThis.FormData = page.window.FormData;
  const names = ["files", "face_row", "colour_row", "house_style", "backdrops"];
  rows = Object.assign({}, ...(await Promise.all(names.map((name) => import(`../../../assets/js/stage/${name}.js`)))));
});
beforeEach(() => {
  wants = [];
  gestures = 0;
  page.asked.length = 0;
  find("#messages").replaceChildren();
});

const colour = (value) => put(rows.colourRow({ name: "ink", label: "Colour", want, gesture }), value, { house: HOUSE });

test("a colour of its own and one of the show's are told apart", () => {
  const row = colour("#ff0000");
  const words = () => [find("[name=ink]").value, find("[type=color]").value, find("[name=ink]").classList.contains("of-house")];
  assert.deepEqual(words(), ["#ff0000", "#ff0000", false]);
  row.show("house:c1", { house: HOUSE });
  assert.deepEqual(words(), ["Reed", "#63c58a", true]);
  row.show("house:gone", { house: HOUSE });
  assert.deepEqual(words(), ["house:gone", "#000000", false]);
});

test("a colour that is sought with the picker is one deed from press to release", () => {
  colour("#ff0000");
  const picker = find("[type=color]");
  input(picker, "#ff0001");
  input(picker, "#ff0002");
  picker.dispatchEvent(new globalThis.Event("change"));
  input(picker, "#ff0003");
  assert.deepEqual(wants, [
    [{ ink: "#ff0001" }, "g1"],
    [{ ink: "#ff0002" }, "g1"],
    [{ ink: "#ff0003" }, "g2"],
  ]);
});

test("a colour of the show's is taken by name, and a typed one as it is", () => {
  colour("#ff0000");
  pressable("Reed").click();
  type(find("[name=ink]"), "rebeccapurple");
  assert.deepEqual(wants, [{ ink: "house:c1" }, { ink: "rebeccapurple" }]);
});

const face = (value = "Fraunces") => put(rows.faceRow({ name: "face", label: "Face", inherit: true, want }), value, { house: HOUSE });

test("faces are offered by where they come from, one's own file among them", () => {
  face();
  assert.deepEqual(
    all("#here option").map((one) => one.value),
    ["", "house:text", "house:f1", "Fraunces", "Karla", "file:9", "upload:", "installed:"],
  );
  type(find("#here select"), "house:f1");
  assert.deepEqual(wants, [{ face: "house:f1" }]);
});

test("a face of the broadcast computer is given by its name, and nothing is sent before there is one", () => {
  const row = face();
  const exact = called("Face, by its exact name on the broadcast computer");
  type(find("#here select"), "installed:");
  type(exact, "  ");
  assert.deepEqual([wants, exact.hidden], [[], false]);
  type(exact, " Larch Mono ");
  exact.blur();
  row.show("installed:Larch Mono", { house: HOUSE });
  assert.deepEqual([wants, find("#here select").value, exact.value], [[{ face: "installed:Larch Mono" }], "installed:", "Larch Mono"]);
  row.show("Karla", { house: HOUSE });
  assert.equal(exact.hidden, true);
});

test("a face from a file is asked for without changing what is set, and worn once it is here", async () => {
  const row = face("Karla");
  type(find("#here select"), "upload:");
  assert.deepEqual([find("#here select").value, wants], ["Karla", []]);
  serve({ "/stage/4/files": { error: "That file holds no face." } });
  await choose(called("Face, from a file"), file("odd.ttf"));
  assert.deepEqual([wants, said()], [[], ["That file holds no face."]]);
  serve({ "/stage/4/files": { file: { id: 31, name: "Odd" } } });
  await choose(called("Face, from a file"), file("odd.ttf"));
  row.show("file:31", { house: HOUSE });
  assert.deepEqual([wants, find("#here select").value], [[{ face: "file:31" }], "file:31"]);
});

test("a film is put in, and taken off again", async () => {
  const row = put(rows.fileRow({ name: "film", label: "Film", of: "film", want }), null);
  assert.deepEqual([find(".file-row .said").textContent, pressable("Take off").hidden], ["No film yet.", true]);
  serve({ "/stage/4/files": (form) => ({ file: { id: form.kind, name: form.file.name } }) });
  await choose(called("Choose a film"), file("dusk.webm"), file("two.webm"));
  assert.equal(page.asked.length, 2);
  row.show("film");
  pressable("Take off").click();
  assert.deepEqual(wants, [{ film: "film" }, { film: null }]);
});

test("one picture is put in where a picture is asked for", async () => {
  const row = put(rows.fileRow({ name: "plate_frame", label: "Own frame", of: "picture", want }), null);
  assert.equal(find(".file-thumb").hidden, true);
  serve({ "/stage/4/files": (form) => ({ file: { id: form.kind, name: form.file.name } }) });
  await choose(called("Choose a picture"), file("wood.svg"));
  row.show("picture");
  assert.deepEqual([wants, find(".file-thumb").src.endsWith("/pictures/picture-1.webp")], [[{ plate_frame: "picture" }], true]);
});

const picture = (name, seconds = 8) => ({ file: name, seconds });
const pictures = (...names) =>
  put(
    rows.filesRow({ name: "pictures", label: "Pictures", want }),
    names.map((name) => picture(name)),
  );

test("pictures are put in turn, moved, timed and taken off, each from what the last came to", async () => {
  pictures("a", "b");
  assert.equal(called("Picture 1 earlier").disabled, true);
  called("Picture 2 earlier").click();
  await settled();
  type(called("Seconds of picture 2"), "3.5");
  await settled();
  called("Take picture 1 off").click();
  await settled();
  assert.deepEqual(
    wants.map(({ pictures: set }) => set),
    [[picture("b"), picture("a")], [picture("b"), picture("a", "3.5")], [picture("a", "3.5")]],
  );
});

test("of pictures dropped together those that are refused are told of, and the others join", async () => {
  pictures("a");
  serve({ "/stage/4/files": (form) => (form.file.name === "bad.svg" ? { error: "It runs a script." } : { file: { id: form.file.name } }) });
  const box = find("#here .drop-here");
  const dropped = [file("one.png"), file("bad.svg"), file("two.png")];
  box.dispatchEvent(Object.assign(new globalThis.Event("drop", { cancelable: true }), { dataTransfer: { files: dropped } }));
  await settled();
  await settled();
  assert.deepEqual(wants, [{ pictures: [picture("a"), picture("one.png"), picture("two.png")] }]);
  assert.deepEqual([said(), box.classList.contains("busy")], [["It runs a script."], false]);
});

function house() {
  const sets = [];
  const style = new rows.HouseStyle(find("#here"), { set: (...given) => sets.push(given), gesture });
  find("#here").replaceChildren();
  style.show(HOUSE);
  return { style, sets };
}

test("the show's colours and faces are named, changed, added under a free key and taken away", () => {
  const { sets } = house();
  type(called("Name of Reed"), "Sedge");
  input(called("Colour of Reed"), "#00ff00");
  type(called("Face of Odd"), "Karla");
  pressable("Add a colour").click();
  pressable("Add a face").click();
  called("Take Reed away").click();
  assert.deepEqual(sets, [
    ["colours", "c1", { name: "Sedge", value: "#63c58a" }],
    ["colours", "c1", { name: "Reed", value: "#00ff00" }, "g1"],
    ["faces", "f1", { name: "Odd", value: "Karla" }],
    ["colours", "c2", { name: "Another", value: "#63c58a" }],
    ["faces", "f2", { name: "Another", value: "Fraunces" }],
    ["colours", "c1", null],
  ]);
});

test("what every look needs cannot be taken away, and a face that is not here keeps its name", () => {
  house();
  assert.deepEqual([called("Take Ink away").hidden, called("Take Text away").hidden, called("Take Odd away").hidden], [true, true, false]);
  assert.equal(called("Face of Odd").value, "Larch");
});

test("what is told meanwhile does not take the words from under the hand", () => {
  const { style } = house();
  const name = called("Name of Reed");
  name.focus();
  name.value = "Sed";
  style.show({ ...HOUSE, colours: { ink: HOUSE.colours.ink } });
  assert.equal(called("Name of Reed"), name);
  name.blur();
  style.show({ ...HOUSE, colours: { ink: HOUSE.colours.ink } });
  assert.equal(called("Name of Reed"), undefined);
});

test("a backdrop of one's own is chosen once it is here, and drawn behind the stage", async () => {
  rows.backdrops((path) => `/stage/4/${path}`);
  serve({ "/stage/4/files": (form) => ({ file: { id: 77, name: form.file.name } }), "/stage/4/backdrop": {} });
  await choose(find("#backdrop-files"), file("marsh.png"));
  await choose(find("#backdrop-files"), file("marsh.png"));
  assert.deepEqual(page.asked.filter(([path]) => path.endsWith("backdrop"))[0], ["/stage/4/backdrop", { backdrop: "file:77" }]);
  assert.equal(all('[value="file:77"]').length, 1);
  rows.showBackdrop("file:77");
  assert.match(find("#frame").style.backgroundImage, /pictures\/77-4\.webp/);
  assert.equal(find('[value="file:77"]').checked, true);
  rows.showBackdrop("thermal");
  assert.deepEqual([find("#frame").dataset.backdrop, find("#frame").style.backgroundImage], ["thermal", ""]);
});
