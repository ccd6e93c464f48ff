import { follow } from "../house/desk.js";
import { say } from "../house/messages.js";
import { get } from "../house/send.js";
import { alertDrops } from "./alert_drops.js";
import { backdrops, showBackdrop } from "./backdrops.js";
import { bar } from "./bar.js";
import { Commands } from "./commands.js";
import { Copies } from "./copies.js";
import { DrawMenu } from "./drawing.js";
import { events } from "./events.js";
import { Edits } from "./edits.js";
import { Frame } from "./frame.js";
import { HouseStyle } from "./house_style.js";
import { Inspector } from "./inspector.js";
import { LiveBox } from "./live.js";
import { dressed, Looks } from "./looks.js";
import { Measures } from "./measures.js";
import { Order } from "./order.js";
import { rehearsal } from "./rehearsal.js";
import { revisions } from "./revisions.js";
import { LETTERS, shortcuts } from "./shortcuts.js";
import { offerWayBack, sizes, stages } from "./stages.js";
import { Draft } from "./state.js";
import { voiceRehearsal } from "./voice_rehearsal.js";

const at = (id) => document.querySelector(id);

// A stage being built: what is chosen, what was told of it, and the parts that show it.
class Station {
  constructor(stageId, kinds, keys) {
    this.kinds = kinds;
    this.edits = new Edits(stageId);
    this.draft = new Draft(Number(stageId));
    this.here = (path) => `/stage/${stageId}/${path}`;
    this.state = { chosen: new Set(), stage: null, wish: null };
    this.gesture = () => this.edits.gesture();
    this.called = (piece) => piece.called || kinds[piece.kind].label;
    this.top = bar(this.here);
    this.picture();
    this.panels();
    this.showRehearsal = rehearsal(this.here);
    this.showVoices = voiceRehearsal(this.here, keys);
    events();
    stages(stageId, this.here);
    backdrops(this.here);
    follow((show) => this.told(show));
    this.doing();
  }

  // The picture itself, and what is put on it.
  picture() {
    const { kinds, gesture, called } = this;
    this.frame = new Frame(at("#frame"), at("#hands"), kinds, {
      choose: (ids) => this.choose(ids),
      set: (sets, how) => this.set(sets, how),
      gesture,
      called,
      // What was told while it was held; what is still on its way is drawn when it is answered.
      released: () => this.edits.quiet && this.draw(),
      draw: (box) => this.openMenu(box),
    });
    this.menu = new DrawMenu(at("#draw-menu"), kinds, LETTERS, (kind, box) => this.add(kind, box));
  }

  // What stands beside it.
  panels() {
    const { kinds, edits, here, gesture, called } = this;
    const set = (values, how) => this.setChosen(values, how);
    this.inspector = new Inspector(kinds, {
      set,
      size: (values, how) => edits.send({ do: "resize", values, how: at("#resize-how input:checked").value, gesture: how }),
      gesture,
      called,
    });
    this.order = new Order(at("#order"), kinds, {
      choose: (id, more) => this.frame.choose(id, more) ?? this.frame.items.get(id)?.focus(),
      order: (piece, place) => edits.send({ do: "order", piece, at: place }),
      called,
    });
    this.houseStyle = new HouseStyle(at("#house-style"), {
      gesture,
      set: (sort, key, value, how) => edits.send({ do: "house", sort, key, value, gesture: how }),
    });
    this.measures = new Measures(at("#measures"), at("#frame"), here("measures"), set);
    this.liveBox = new LiveBox(at("#live"), here);
    this.looks = new Looks(at("#looks"), here("looks"), (look, whole) => this.wear(look, whole));
    this.copies = new Copies(at("#copies"), here, () => [...this.state.chosen][0], this.top.undo);
  }

  // What is pressed.
  doing() {
    const { edits, draft, state, called, top, kinds } = this;
    const undo = top.undo;
    const act = new Commands({ edits, draft, state, called, undo, wish: (puts) => this.wish(puts), draw: () => this.draw() });
    const openLooks = () =>
      this.chosen.length === 1 && dressed(this.chosen[0]) && this.looks.open(this.chosen[0], this.pieces.filter(dressed).length);
    alertDrops(at("#hands"), (id) => draft.piece(id));
    at("#hand-on").addEventListener("click", () => this.copies.open());
    at("#looks-hand-on").addEventListener("click", () => {
      at("#looks").close();
      this.copies.open();
    });
    at("#add-piece").addEventListener("click", () => this.openMenu(null));
    at("#open-looks").addEventListener("click", openLooks);
    at("#open-outfits").addEventListener("click", () => this.looks.open(null, this.pieces.filter(dressed).length));
    shortcuts({
      ...{ kinds, act, top, openLooks, draft },
      add: (kind, box) => this.add(kind, box),
      choose: (ids) => this.choose(ids),
      openRevisions: revisions(this.here, undo),
    });
  }

  get pieces() {
    return this.draft.document.pieces;
  }

  get chosen() {
    return this.pieces.filter((piece) => this.state.chosen.has(piece.id));
  }

  // What came of it counts here at once, not only with the next report.
  async set(sets, how) {
    const small = sets.map(([piece, values]) => ({ do: "set", piece, values }));
    const edit = small.length === 1 ? small[0] : { do: "many", edits: small };
    const done = await this.edits.send({ ...edit, gesture: how });
    for (const one of done?.edits ?? (done ? [done] : [])) this.draft.guess(one.piece, one.values, done.at);
    if (done && !this.frame.held) this.draw();
    return done;
  }

  setChosen(values, how) {
    const sets = [...this.state.chosen].map((id) => [id, values]);
    return this.set(sets, how);
  }

  async wear({ key, set, own, name }, whole) {
    const [piece] = this.chosen;
    const all = own ? { do: "dress", set } : { do: "outfit", outfit: key };
    const one = own || piece?.kind === "chat" ? { do: "look", piece: piece.id, set } : { do: "outfit", outfit: key, pieces: [piece?.id] };
    if (await this.edits.send(whole ? all : one)) say(`${name} it is.`, { undo: this.top.undo });
  }

  openMenu(box) {
    this.menu.open(box, this.frame.ratio, this.frame.root.getBoundingClientRect());
  }

  // Where nobody drew a box, Ruby knows where such a piece usually stands.
  async add(kind, box) {
    const done = await this.edits.send(box ? { do: "place", kind, values: box } : { do: "place", kind });
    if (done) this.wish(done.edits ?? [done]);
  }

  // What was just put there is chosen as soon as it is told of.
  wish(puts) {
    this.state.wish = puts.map((put) => put.piece.id);
    if (this.state.wish.every((id) => this.draft.piece(id))) this.fulfil();
  }

  fulfil() {
    const ids = this.state.wish;
    this.state.wish = null;
    this.choose(ids);
  }

  choose(ids) {
    this.state.chosen = new Set(ids);
    this.draw();
  }

  draw() {
    const { draft, state, frame } = this;
    if (!draft.document) return;
    state.chosen = new Set([...state.chosen].filter((id) => draft.piece(id)));
    frame.show(draft.document, state.chosen);
    const [piece] = state.chosen;
    const alone = state.chosen.size === 1 ? draft.piece(piece) : null;
    this.inspector.show(draft.document, this.chosen);
    this.measures.show(alone, frame.ratio);
    this.order.show(draft.document, state.chosen);
    this.liveBox.show(alone, state.stage?.live);
    this.houseStyle.show(draft.document.house);
    at("#hint").hidden = draft.document.pieces.length > 0;
  }

  told(show) {
    const stage = show.stages.find((one) => one.id === this.draft.id);
    if (!stage) return;
    this.state.stage = stage;
    this.top.show(stage);
    this.showRehearsal(stage);
    this.showVoices(stage);
    showBackdrop(stage.backdrop);
    this.liveBox.tell(stage.live);
    this.take(show);
  }

  take(show) {
    const { draft, state } = this;
    const first = draft.document === null;
    const told = draft.take(show.edited ?? [], show.whole);
    if (!told || this.frame.held) return;
    const { pieces } = draft.document;
    // A flurry lies over all the others.
    const front = pieces.filter((piece) => piece.kind !== "flurry").at(-1) ?? pieces.at(-1);
    const [wanted, setting] = location.hash.slice(1).split(".");
    const asked = draft.piece(wanted);
    if (first && front && state.chosen.size === 0) state.wish = [(asked ?? front).id];
    if (state.wish?.every((id) => draft.piece(id))) this.fulfil();
    else this.draw();
    if (first && asked && setting) this.inspector.reveal(setting);
  }
}

const page = at("[data-stage]");
if (page) new Station(page.dataset.stage, await get("/stage/kinds"), JSON.parse(page.dataset.keys));
else {
  sizes(at(".stage-none"));
  follow(() => {});
}
offerWayBack();
