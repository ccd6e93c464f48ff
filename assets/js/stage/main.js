import { follow } from "../house/desk.js";
import { icon, make } from "../house/elements.js";
import { keys } from "../house/keys.js";
import { say } from "../house/messages.js";
import { attempt, send } from "../house/send.js";
import { count } from "../house/words.js";
import { Edits } from "./edits.js";
import { Frame } from "./frame.js";
import { Inspector } from "./inspector.js";
import { rehearsal } from "./rehearsal.js";

const page = document.querySelector("[data-stage]");
if (page) begin(page.dataset.stage);
else follow(() => {});

function begin(stageId) {
  const edits = new Edits(stageId);
  const id = Number(stageId);
  const here = (path) => `/stage/${stageId}/${path}`;
  const state = { document: null, chosen: null, stage: null };

  // What came of it counts here at once, not only with the next report.
  async function set(pieceId, values, gesture) {
    const done = await edits.send({ do: "set", piece: pieceId, values, gesture });
    const piece = state.document?.pieces.find((one) => one.id === pieceId);
    if (done && piece) {
      Object.assign(piece, done.values);
      if (!frame.held) draw();
    }
    return done;
  }

  const inspector = new Inspector({
    set: (values, gesture) => set(state.chosen, values, gesture),
    size: (values, gesture) => edits.send({ do: "size", values, gesture }),
    gesture: () => edits.gesture(),
  });
  const frame = new Frame(document.querySelector("#frame"), document.querySelector("#hands"), {
    choose,
    set,
    draw: add,
    gesture: () => edits.gesture(),
  });
  const showRehearsal = rehearsal(here);

  async function add(values) {
    const done = await edits.send({ do: "add", kind: "chat", values });
    if (done) state.wish = done.piece.id;
  }

  function choose(pieceId) {
    if (state.chosen === pieceId) return;
    state.chosen = pieceId;
    draw();
  }

  function draw() {
    if (!state.document) return;
    const piece = state.document.pieces.find((one) => one.id === state.chosen);
    if (!piece) state.chosen = null;
    frame.show(state.document, state.chosen);
    inspector.show(state.document, piece, piece && state.stage.legibility[piece.id]);
    drawOrder();
  }

  function drawOrder() {
    const list = document.querySelector("#order");
    const pieces = [...state.document.pieces].reverse();
    const wanted = pieces.map((piece) => `${piece.id}${piece.id === state.chosen}`).join();
    if (list.dataset.drawn === wanted) return;
    list.dataset.drawn = wanted;
    list.replaceChildren(
      ...pieces.map((piece) => {
        const button = make("button", `button${piece.id === state.chosen ? " chosen" : ""}`, icon("message-square-text"), "Chat");
        button.type = "button";
        button.setAttribute("aria-pressed", piece.id === state.chosen);
        button.addEventListener("click", () => choose(piece.id));
        return button;
      }),
    );
  }

  function drawBar({ document: stage, revision, changes, undo, redo }) {
    document.querySelector("#stage-size").textContent =
      `${stage.width} × ${stage.height} · ${revision === 0 ? "nothing is on air yet, the link shows an empty picture" : `r${revision} is on air`}`;
    document.querySelector("#undo").disabled = !undo;
    document.querySelector("#redo").disabled = !redo;
    const waiting = document.querySelector("#waiting");
    waiting.textContent = changes.length === 0 ? "nothing waiting" : `${count(changes.length, "change")} waiting`;
    waiting.classList.toggle("mind", changes.length > 0);
    document.querySelector("#put-on-air").disabled = changes.length === 0;
    document
      .querySelector("#changes-list")
      .replaceChildren(
        ...(changes.length > 0 ? changes : ["What you see here is what viewers see."]).map((words) => make("li", "", words)),
      );
  }

  follow((show) => {
    const stage = show.stages.find((one) => one.id === id);
    if (!stage) return;
    state.stage = stage;
    drawBar(stage);
    showRehearsal(stage);
    document.querySelector("#frame").dataset.backdrop = stage.backdrop;
    document.querySelector("#hint").hidden = stage.document.pieces.length > 0;
    if (!edits.quiet || frame.held) return;
    const first = state.document === null && stage.document.pieces.length > 0;
    state.document = stage.document;
    if (state.wish && stage.document.pieces.some((piece) => piece.id === state.wish)) {
      state.chosen = state.wish;
      state.wish = null;
    } else if (first) {
      state.chosen = stage.document.pieces.at(-1).id;
    }
    draw();
  });

  async function putOnAir() {
    const done = await attempt(() => send(here("put-on-air")));
    if (done) say(`Revision ${done.revision} is on air.`);
  }

  const undo = () => attempt(() => send(here("undo")));
  const redo = () => attempt(() => send(here("redo")));
  const addByKey = () => {
    const { width, height } = state.document;
    return add({
      x: Math.round(width * 0.04),
      y: Math.round(height * 0.4),
      width: Math.round(width * 0.4),
      height: Math.round(height * 0.55),
    });
  };
  const remove = async () => {
    if (!state.chosen) return;
    const done = await edits.send({ do: "remove", piece: state.chosen });
    if (done) say("Chat is taken off the stage.", { undo });
  };

  document.querySelector("#put-on-air").addEventListener("click", putOnAir);
  document.querySelector("#undo").addEventListener("click", undo);
  document.querySelector("#redo").addEventListener("click", redo);
  document.querySelector("#add-chat").addEventListener("click", addByKey);
  document.querySelector("#remove").addEventListener("click", remove);
  document
    .querySelector("#backdrops")
    .addEventListener("change", (event) => attempt(() => send(here("backdrop"), { backdrop: event.target.value })));

  keys({
    c: ["Add a chat piece", addByKey],
    a: ["Put on air", putOnAir],
    r: ["Rehearse, or stop", () => document.querySelector("#rehearse").click()],
    "Ctrl z": ["Undo", undo],
    "Ctrl y": ["Redo", redo],
    Delete: ["Take the chosen piece off", remove],
    Escape: ["Choose nothing", () => choose(null)],
    ...Object.fromEntries(
      [
        ["Arrows", "Move the chosen piece 1 px, with Shift 10"],
        ["Alt arrows", "Size it 1 px, with Shift 10"],
      ].map(([key, words]) => [key, [words]]),
    ),
  });
}
