// The stage in true proportion: pieces that are chosen, moved and sized by hand, and drawn anew on free ground.
import { around, moving, place, SMALLEST_PX, sized } from "./boxes.js";
import { drawBox, track } from "./dragging.js";
import { dressHand, handOf, putHand } from "./hands.js";
import { Snapping } from "./snapping.js";

const DRAWN_AT_LEAST_PX = 24;
const ARROWS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

export class Frame {
  // kinds: by name; tell: choose(ids), set([[id, values]], gesture), draw(box), gesture(), called(piece),
  // released(): nothing is held any more
  constructor(root, hands, kinds, tell) {
    this.root = root;
    this.hands = hands;
    this.kinds = kinds;
    this.tell = tell;
    this.items = new Map();
    this.chosen = new Set();
    this.ratio = 1;
    this.held = null;
    this.snapping = new Snapping(hands);
    hands.addEventListener("pointerdown", (event) => this.press(event));
    hands.addEventListener("keydown", (event) => this.key(event));
    new ResizeObserver(() => this.fit()).observe(root.parentElement);
  }

  show(document_, chosen) {
    this.document = document_;
    this.chosen = chosen;
    this.fit();
    const here = new Set(document_.pieces.map((piece) => piece.id));
    for (const [id, hand] of this.items) {
      if (here.has(id)) continue;
      hand.remove();
      this.items.delete(id);
    }
    for (const piece of document_.pieces) this.showPiece(piece);
    const wanted = document_.pieces.map((piece) => this.items.get(piece.id));
    if (wanted.some((hand, index) => this.hands.children[index] !== hand)) this.reorder(wanted);
  }

  // Without taking the focus from the hand that has it.
  reorder(wanted) {
    const focused = document.activeElement;
    this.hands.prepend(...wanted);
    this.pressed = true;
    if (wanted.includes(focused)) focused.focus();
    this.pressed = false;
  }

  showPiece(piece) {
    const called = this.tell.called(piece);
    let hand = this.items.get(piece.id);
    if (!hand) {
      hand = handOf(piece, this.kinds[piece.kind], called);
      hand.addEventListener("focus", () => !this.pressed && this.choose(piece.id, false));
      this.items.set(piece.id, hand);
    }
    dressHand(hand, piece, called, this.chosen.has(piece.id));
    if (!this.held?.has(piece.id)) this.put(piece.id, piece);
  }

  put(id, box) {
    const alone = this.chosen.size === 1 && this.chosen.has(id);
    putHand(this.items.get(id), place(box), { ratio: this.ratio, stage: this.document, alone });
  }

  fit() {
    if (!this.document) return;
    const { width, height } = this.document;
    const room = this.root.parentElement;
    room.style.aspectRatio = `${width} / ${height}`;
    this.ratio = Math.min(room.clientWidth / width, room.clientHeight / height);
    Object.assign(this.root.style, { width: `${width * this.ratio}px`, height: `${height * this.ratio}px` });
    for (const piece of this.document.pieces) if (this.items.has(piece.id) && !this.held?.has(piece.id)) this.put(piece.id, piece);
  }

  piece(id) {
    return this.document.pieces.find((piece) => piece.id === id);
  }

  // With the others of its group, unless more is added to what is chosen.
  choose(id, more) {
    if (more) {
      const chosen = new Set(this.chosen);
      if (!chosen.delete(id)) chosen.add(id);
      return this.tell.choose(chosen);
    }
    if (this.chosen.has(id)) return;
    const { group } = this.piece(id) ?? {};
    const together = group ? this.document.pieces.filter((piece) => piece.group === group) : [{ id }];
    this.tell.choose(new Set(together.map((piece) => piece.id)));
  }

  press(event) {
    if (event.button !== 0) return;
    const hand = event.target.closest(".hand");
    const side = event.target.dataset.side;
    event.preventDefault();
    if (!hand) return event.shiftKey ? this.gather(event) : this.drawNew(event);
    this.pressed = true;
    hand.focus();
    this.pressed = false;
    this.choose(hand.dataset.piece, !side && (event.shiftKey || event.ctrlKey || event.metaKey));
    if (side) this.size(event, hand.dataset.piece, side);
    else if (this.chosen.has(hand.dataset.piece)) this.move(event);
  }

  free(ids) {
    return [...ids].filter((id) => this.piece(id) && !this.piece(id).locked);
  }

  move(event) {
    const ids = this.free(this.chosen);
    if (ids.length === 0) return;
    const before = new Map(ids.map((id) => [id, place(this.piece(id))]));
    const whole = around([...before.values()]);
    this.hold(event, ids, (dx, dy, now) => {
      const wanted = { ...whole, x: whole.x + dx, y: whole.y + dy };
      const rested = now.altKey ? wanted : this.snapping.rest(wanted, moving(null));
      const by = [rested.x - whole.x, rested.y - whole.y];
      return ids.map((id) => [id, { x: before.get(id).x + by[0], y: before.get(id).y + by[1] }]);
    });
  }

  size(event, id, side) {
    const piece = this.piece(id);
    if (piece.locked) return;
    const before = place(piece);
    this.hold(event, [id], (dx, dy, now) => {
      const keep = piece.keep_proportion !== now.shiftKey;
      const values = sized(before, side, dx, dy, keep);
      if (keep || now.altKey) return [[id, values]];
      const rested = this.snapping.rest({ ...before, ...values }, moving(side));
      return [
        [id, Object.fromEntries(Object.keys(values).map((name) => [name, Math.max(name.length > 1 ? SMALLEST_PX : -7680, rested[name])]))],
      ];
    });
  }

  // values(dx, dy, event): [[id, values] …] for how far it was dragged
  hold(event, ids, values) {
    const gesture = this.tell.gesture();
    this.snapping.begin(this.document, new Set(ids), this.ratio);
    this.held = new Set(ids);
    track(
      event,
      this.hands,
      this.ratio,
      (dx, dy, now) => {
        const sets = values(dx, dy, now);
        for (const [id, one] of sets) this.put(id, { ...this.piece(id), ...one });
        this.tell.set(sets, gesture);
      },
      () => {
        this.held = null;
        this.snapping.clear();
        this.tell.released();
      },
    );
  }

  drawNew(event) {
    drawBox(event, this.hands, this.ratio, "drawing", (box) => {
      if (box && box.width * this.ratio >= DRAWN_AT_LEAST_PX && box.height * this.ratio >= DRAWN_AT_LEAST_PX) this.tell.draw(box);
      else this.tell.choose(new Set());
    });
  }

  // Everything that is touched is chosen.
  gather(event) {
    drawBox(event, this.hands, this.ratio, "gathering", (box) => {
      const touches = (piece) =>
        piece.x < box.x + box.width && piece.x + piece.width > box.x && piece.y < box.y + box.height && piece.y + piece.height > box.y;
      if (box) this.tell.choose(new Set(this.document.pieces.filter(touches).map((piece) => piece.id)));
    });
  }

  key(event) {
    const arrow = ARROWS[event.key];
    if (!event.target.closest(".hand") || !arrow || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    const far = event.shiftKey ? 10 : 1;
    const [dx, dy] = arrow.map((step) => step * far);
    const sets = this.free(this.chosen).map((id) => {
      const piece = this.piece(id);
      return [id, event.altKey ? grown(piece, dx, dy) : { x: piece.x + dx, y: piece.y + dy }];
    });
    // The next press goes on from here, before the server has told of this one.
    for (const [id, values] of sets) this.put(id, Object.assign(this.piece(id), values));
    if (sets.length > 0) this.tell.set(sets);
  }
}

function grown(piece, dx, dy) {
  return { width: Math.max(SMALLEST_PX, piece.width + dx), height: Math.max(SMALLEST_PX, piece.height + dy) };
}
