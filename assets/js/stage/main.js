import { follow } from "../house/desk.js";
import { say } from "../house/messages.js";
import { get } from "../house/send.js";
import { backdrops, showBackdrop } from "./backdrops.js";
import { bar } from "./bar.js";
import { commands } from "./commands.js";
import { Copies } from "./copies.js";
import { DrawMenu } from "./drawing.js";
import { events } from "./events.js";
import { Edits } from "./edits.js";
import { Frame } from "./frame.js";
import { HouseStyle } from "./house_style.js";
import { Inspector } from "./inspector.js";
import { LiveBox } from "./live.js";
import { Looks } from "./looks.js";
import { Measures } from "./measures.js";
import { Order } from "./order.js";
import { rehearsal } from "./rehearsal.js";
import { revisions } from "./revisions.js";
import { shortcuts } from "./shortcuts.js";
import { offerWayBack, sizes, stages } from "./stages.js";
import { Draft } from "./state.js";
import { voiceRehearsal } from "./voice_rehearsal.js";

const LETTERS = {
  chat: "c",
  voices: "m",
  portraits: "f",
  room_card: "j",
  alerts: "b",
  goal: "i",
  flurry: "y",
  challenge: "g",
  newest: "n",
  counter: "z",
  shout_out: "h",
  captions: "u",
  picture: "p",
  video: "v",
  text: "t",
  clock: "k",
  now_line: "l",
  space: "s",
};

const page = document.querySelector("[data-stage]");
if (page) begin(page.dataset.stage, await get("/stage/kinds"));
else {
  sizes(document.querySelector(".stage-none"));
  follow(() => {});
}
offerWayBack();

function begin(stageId, kinds) {
  const edits = new Edits(stageId);
  const draft = new Draft(Number(stageId));
  const here = (path) => `/stage/${stageId}/${path}`;
  const state = { chosen: new Set(), stage: null, wish: null };
  const gesture = () => edits.gesture();
  const called = (piece) => piece.called || kinds[piece.kind].label;
  const chosen = () => draft.document.pieces.filter((piece) => state.chosen.has(piece.id));

  // What came of it counts here at once, not only with the next report.
  async function set(sets, how) {
    const small = sets.map(([piece, values]) => ({ do: "set", piece, values }));
    const edit = small.length === 1 ? small[0] : { do: "many", edits: small };
    const done = await edits.send({ ...edit, gesture: how });
    for (const one of done?.edits ?? (done ? [done] : [])) draft.guess(one.piece, one.values, done.at);
    if (done && !frame.held) draw();
    return done;
  }

  const setChosen = (values, how) =>
    set(
      [...state.chosen].map((id) => [id, values]),
      how,
    );
  const inspector = new Inspector(kinds, {
    set: setChosen,
    size: (values, how) =>
      edits.send({ do: "resize", values, how: document.querySelector("#resize-how input:checked").value, gesture: how }),
    gesture,
    called,
  });
  const frame = new Frame(document.querySelector("#frame"), document.querySelector("#hands"), kinds, {
    choose,
    set,
    gesture,
    called,
    // What was told while it was held; what is still on its way is drawn when it is answered.
    released: () => edits.quiet && draw(),
    draw: (box) => menu.open(box, frame.ratio, frame.root.getBoundingClientRect()),
  });
  const menu = new DrawMenu(document.querySelector("#draw-menu"), kinds, LETTERS, add);
  const order = new Order(document.querySelector("#order"), kinds, {
    choose: (id, more) => frame.choose(id, more) ?? frame.items.get(id)?.focus(),
    order: (piece, at) => edits.send({ do: "order", piece, at }),
    called,
  });
  const houseStyle = new HouseStyle(document.querySelector("#house-style"), {
    gesture,
    set: (sort, key, value, how) => edits.send({ do: "house", sort, key, value, gesture: how }),
  });
  const top = bar(here);
  const showRehearsal = rehearsal(here);
  events();
  const showVoices = voiceRehearsal(here, JSON.parse(page.dataset.keys));
  stages(stageId, here);
  const measures = new Measures(document.querySelector("#measures"), document.querySelector("#frame"), here("measures"), (values) =>
    setChosen(values),
  );
  backdrops(here);
  const liveBox = new LiveBox(document.querySelector("#live"), here);
  const looks = new Looks(document.querySelector("#looks"), here("looks"), async (set, name) => {
    const [piece] = state.chosen;
    if (await edits.send({ do: "look", piece, set })) say(`${name} it is.`, { undo: top.undo });
  });
  const copies = new Copies(document.querySelector("#copies"), here, () => [...state.chosen][0], top.undo);
  document.querySelector("#hand-on").addEventListener("click", () => copies.open());
  const openLooks = () => chosen()[0]?.kind === "chat" && looks.open(chosen()[0]);
  const openRevisions = revisions(here, top.undo);

  // Where nobody drew a box, Ruby knows where such a piece usually stands.
  async function add(kind, box) {
    const done = await edits.send(box ? { do: "add", kind, values: box } : { do: "place", kind });
    if (done) wish(done.edits ?? [done]);
  }

  // What was just put there is chosen as soon as it is told of.
  function wish(puts) {
    state.wish = puts.map((put) => put.piece.id);
    if (state.wish.every((id) => draft.piece(id))) fulfil();
  }

  function fulfil() {
    state.chosen = new Set(state.wish);
    state.wish = null;
    draw();
  }

  function choose(ids) {
    state.chosen = new Set(ids);
    draw();
  }

  function draw() {
    if (!draft.document) return;
    state.chosen = new Set([...state.chosen].filter((id) => draft.piece(id)));
    frame.show(draft.document, state.chosen);
    const [piece] = state.chosen;
    inspector.show(draft.document, chosen());
    measures.show(state.chosen.size === 1 ? draft.piece(piece) : null, frame.ratio);
    order.show(draft.document, state.chosen);
    liveBox.show(state.chosen.size === 1 ? draft.piece(piece) : null, state.stage?.live);
    houseStyle.show(draft.document.house);
    document.querySelector("#hint").hidden = draft.document.pieces.length > 0;
  }

  follow((show) => {
    const stage = show.stages.find((one) => one.id === draft.id);
    if (!stage) return;
    state.stage = stage;
    top.show(stage);
    showRehearsal(stage);
    showVoices(stage);
    showBackdrop(stage.backdrop);
    const first = draft.document === null;
    liveBox.tell(stage.live);
    const told = draft.take(show.edited ?? [], show.whole);
    if (!told || frame.held) return;
    const { pieces } = draft.document;
    // A flurry lies over all the others.
    const front = pieces.filter((piece) => piece.kind !== "flurry").at(-1) ?? pieces.at(-1);
    if (first && front && state.chosen.size === 0) state.wish = [front.id];
    if (state.wish?.every((id) => draft.piece(id))) fulfil();
    else draw();
  });

  const act = commands({ edits, draft, state, called, undo: top.undo, wish, draw });
  document.querySelector("#add-piece").addEventListener("click", () => menu.open(null, frame.ratio, frame.root.getBoundingClientRect()));
  document.querySelector("#open-looks").addEventListener("click", openLooks);
  shortcuts({ kinds, letters: LETTERS, add, act, top, choose, openLooks, openRevisions, draft });
}
