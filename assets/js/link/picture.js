// What stands on the stage, kept as the frames say.
import { AlertsPiece } from "./alerts_piece.js";
import { ChatPiece } from "./chat_piece.js";
import { FlurryPiece } from "./flurry_piece.js";
import { CaptionsPiece } from "./captions_piece.js";
import { ChallengePiece, GoalPiece } from "./goal_piece.js";
import { LargeLine } from "./large_line.js";
import { NewestPiece } from "./newest_piece.js";
import { PicturePiece, VideoPiece } from "./picture_piece.js";
import { PortraitsPiece } from "./portraits_piece.js";
import { RoomCardPiece } from "./room_card_piece.js";
import { ShoutOutPiece } from "./shout_out_piece.js";
import { VoicesPiece } from "./voices_piece.js";
import { ClockPiece, CounterPiece, NowLinePiece, TextPiece } from "./words_piece.js";

const KINDS = {
  chat: ChatPiece,
  alerts: AlertsPiece,
  goal: GoalPiece,
  flurry: FlurryPiece,
  challenge: ChallengePiece,
  newest: NewestPiece,
  counter: CounterPiece,
  shout_out: ShoutOutPiece,
  captions: CaptionsPiece,
  voices: VoicesPiece,
  portraits: PortraitsPiece,
  room_card: RoomCardPiece,
  picture: PicturePiece,
  video: VideoPiece,
  text: TextPiece,
  clock: ClockPiece,
  now_line: NowLinePiece,
};

// As a piece of this kind is drawn, where nothing else is set; null for one that is not drawn.
export const pieceOf = (kind, id) => (KINDS[kind] ? new KINDS[kind](id, { css: {}, form: "" }) : null);

// What a link sets of all pieces, of a kind and of one alone; the narrower word counts.
function optionsOf({ of = {}, ...all }, { id, kind }) {
  const set = [all, of[kind], of[id]].filter(Boolean);
  const merged = (name) => Object.assign({}, ...set.map((one) => one[name]));
  return { ...Object.assign({}, ...set), css: merged("css"), parts: merged("parts") };
}

export class Picture {
  // overrides: what this link sets by itself; side: of the camera that is drawn, or both
  // painted: told the id of each line that is put on the page
  constructor(root, overrides, side, painted) {
    this.root = root;
    this.overrides = overrides;
    this.side = side;
    this.painted = painted;
    this.large = new LargeLine(root);
    this.pieces = new Map();
    this.size = { width: 1920, height: 1080 };
    this.revision = 0;
    addEventListener("resize", () => this.fit());
    // A face that comes late has other widths.
    document.fonts.addEventListener("loadingdone", () => {
      for (const piece of this.pieces.values()) piece.fit?.();
    });
    this.fit();
  }

  apply(frame) {
    if (frame.style) this.style(frame.style);
    this.each(frame.colours, (piece, [id, colour, other]) => piece.recolour(id, colour, other));
    this.each(frame.again, (piece, card) => piece.again(card));
    if (frame.whole) for (const [id, piece] of this.pieces) piece.replace?.(frame.in?.[id] ?? [], frame.now, frame.age);
    else this.change(frame);
    if ("large" in frame && this.side !== "behind") this.large.show(frame.large);
    for (const [id, value] of Object.entries(frame.live ?? {})) this.pieces.get(id)?.live(value);
    for (const [id, goal] of Object.entries(frame.counted ?? {})) this.pieces.get(id)?.counted(goal);
    for (const piece of this.pieces.values()) if (frame.ground) piece.ground?.(frame.ground);
    // What flew while the page was away is over.
    if (!frame.missed && !document.hidden) for (const [id, cards] of Object.entries(frame.fly ?? {})) this.pieces.get(id)?.fly(cards);
    for (const [id, list] of Object.entries(frame.grow ?? {})) this.pieces.get(id)?.grow(list);
    if ("shout" in frame) for (const piece of this.pieces.values()) piece.shout?.(frame.shout);
    if ("alert" in frame) for (const piece of this.pieces.values()) piece.alert(frame.alert);
    for (const [id, card] of Object.entries(frame.voices ?? {})) this.pieces.get(id)?.voices(card, !frame.whole && !frame.missed);
  }

  change(frame) {
    const how = { lively: frame.lively ?? 1, arriving: !document.hidden && !frame.missed, now: frame.now, age: frame.age };
    for (const [id, piece] of this.pieces) {
      const what = { out: frame.out?.[id], pulled: frame.pulled?.[id], in: frame.in?.[id] };
      if (what.out || what.pulled || what.in) piece.change(what, how);
    }
  }

  // What came and went while the page was away never gets onto the picture; what went and came again does.
  applyMissed(frames) {
    const gone = new Map();
    for (const [at, frame] of frames.entries())
      for (const [piece, ids] of [...Object.entries(frame.out ?? {}), ...Object.entries(frame.pulled ?? {})])
        for (const id of ids) gone.set(`${piece}/${id}`, at);
    // Where pieces were set otherwise meanwhile, lines may stand longer than was said.
    const restyled = frames.some((frame) => frame.style);
    const over = (card, age) => !restyled && card.z !== undefined && card.z <= age;
    for (const [at, frame] of frames.entries()) {
      const lines = Object.entries(frame.in ?? {}).map(([piece, cards]) => [
        piece,
        cards.filter((card) => !(gone.get(`${piece}/${card.i}`) > at) && !over(card, frame.age)),
      ]);
      this.apply({ ...frame, in: Object.fromEntries(lines), missed: true });
    }
  }

  // What is pulled leaves at once, also where it is not known yet what else there is.
  takeAway(frame) {
    for (const one of frame.missed ?? [frame]) {
      this.each(one.pulled, (piece, id) => piece.take(id));
      if (one.large === null) this.large.show(null);
      for (const piece of this.pieces.values()) {
        if (one.ground) piece.ground?.(one.ground);
        if (one.alert?.off) piece.alert({ off: one.alert.off });
      }
    }
  }

  empty() {
    for (const piece of this.pieces.values()) piece.remove();
    this.large.show(null);
    this.pieces.clear();
  }

  each(byPiece, act) {
    for (const [id, items] of Object.entries(byPiece ?? {})) {
      const piece = this.pieces.get(id);
      if (piece) for (const item of items) act(piece, item);
    }
  }

  // order: all that stand there, from back to front; pieces: those that are told anew
  style({ width, height, revision, order, behind, pieces, doubt_ms: doubtMs }) {
    this.size = { width, height };
    this.doubtMs = doubtMs;
    this.revision = revision;
    const wanted = new Set(order);
    for (const [id, piece] of this.pieces) {
      if (wanted.has(id)) continue;
      piece.remove();
      this.pieces.delete(id);
    }
    for (const given of pieces) this.place(given);
    const moved = this.inOrder(order, behind);
    if (moved.length > 0) this.root.append(...moved, this.large.element);
    this.fit();
  }

  place(given) {
    if (!KINDS[given.kind]) return;
    const piece = this.pieces.get(given.id) ?? new KINDS[given.kind](given.id, optionsOf(this.overrides, given));
    this.pieces.set(given.id, piece);
    piece.painted = this.painted;
    piece.style(given);
  }

  // Appends only where the order is another one: what is moved in the document starts its motion anew.
  inOrder(order, behind) {
    for (const [id, piece] of this.pieces)
      piece.element.hidden = Boolean(this.side && (behind || this.side === "behind") && piece.side !== this.side) || !this.wanted(id);
    const wanted = order.map((id) => this.pieces.get(id)?.element).filter(Boolean);
    const there = [...this.root.children].filter((element) => element !== this.large.element);
    return wanted.every((element, index) => there[index] === element) ? [] : wanted;
  }

  // A link may name the pieces that its screen shows, by their ids or kinds.
  wanted(id) {
    const { only = [] } = this.overrides;
    return only.length === 0 || only.some((one) => one === id || one === id.replace(/\d+$/, ""));
  }

  // Faces that this computer has to have.
  installed() {
    return [...new Set([...this.pieces.values()].flatMap((piece) => piece.given.installed ?? []))];
  }

  // In a window of another size everything is drawn anew at that size.
  fit() {
    const { width, height } = this.size;
    const ratio = Math.min(innerWidth / width, innerHeight / height) || 1;
    const left = (innerWidth - width * ratio) / 2;
    const top = (innerHeight - height * ratio) / 2;
    const fitted = `${width} ${height} ${innerWidth} ${innerHeight}`;
    if (this.fitted === fitted) return;
    this.fitted = fitted;
    Object.assign(this.root.style, {
      width: `${width}px`,
      height: `${height}px`,
      transform: ratio === 1 && left === 0 && top === 0 ? "none" : `translate(${left}px, ${top}px) scale(${ratio})`,
    });
  }
}
