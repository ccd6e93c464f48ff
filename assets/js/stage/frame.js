// The stage in true proportion: pieces that are moved and sized by hand, and drawn anew on free ground.
import { make } from "../house/elements.js";

const SIDES = ["n", "s", "w", "e", "n w", "n e", "s w", "s e"];
const SMALLEST_PX = 16;
const DRAWN_AT_LEAST_PX = 40;
const ARROWS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

const place = ({ x, y, width, height }) => ({ x, y, width, height });

export class Frame {
  // choose(id), set(id, values, gesture), draw(values), gesture()
  constructor(root, hands, tell) {
    this.root = root;
    this.hands = hands;
    this.tell = tell;
    this.items = new Map();
    this.ratio = 1;
    this.held = null;
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
  }

  showPiece(piece) {
    let hand = this.items.get(piece.id);
    if (!hand) {
      hand = this.makeHand(piece);
      this.items.set(piece.id, hand);
    }
    hand.classList.toggle("chosen", piece.id === this.chosen);
    if (this.held?.id !== piece.id) this.put(hand, place(piece));
    this.hands.append(...(hand.parentElement ? [] : [hand]));
  }

  makeHand(piece) {
    const hand = make(
      "div",
      "hand",
      make("span", "hand-size"),
      ...SIDES.map((side) => {
        const grip = make("span", "grip");
        grip.dataset.side = side;
        return grip;
      }),
    );
    hand.tabIndex = 0;
    hand.dataset.piece = piece.id;
    hand.setAttribute("role", "button");
    hand.setAttribute("aria-label", "Chat: arrows move it, Alt with arrows sizes it");
    hand.addEventListener("focus", () => this.tell.choose(piece.id));
    return hand;
  }

  put(hand, { x, y, width, height }) {
    const stage = this.document;
    Object.assign(hand.style, {
      left: `${x * this.ratio}px`,
      top: `${y * this.ratio}px`,
      width: `${width * this.ratio}px`,
      height: `${height * this.ratio}px`,
    });
    hand.querySelector(".hand-size").dataset.size = `${width} × ${height}`;
    hand.querySelector(".hand-size").hidden = hand.dataset.piece !== this.chosen;
    hand.classList.toggle("low", (y + height) * this.ratio + 24 > stage.height * this.ratio);
    hand.classList.toggle("at-left", x * this.ratio < 24);
    hand.classList.toggle("at-right", (stage.width - x - width) * this.ratio < 24);
  }

  fit() {
    if (!this.document) return;
    const { width, height } = this.document;
    const room = this.root.parentElement;
    room.style.aspectRatio = `${width} / ${height}`;
    this.ratio = Math.min(room.clientWidth / width, room.clientHeight / height);
    Object.assign(this.root.style, { width: `${width * this.ratio}px`, height: `${height * this.ratio}px` });
    for (const [id, hand] of this.items) {
      const piece = this.piece(id);
      if (piece && this.held?.id !== id) this.put(hand, place(piece));
    }
  }

  piece(id) {
    return this.document.pieces.find((piece) => piece.id === id);
  }

  press(event) {
    if (event.button !== 0) return;
    const hand = event.target.closest(".hand");
    const side = event.target.dataset.side;
    event.preventDefault();
    if (hand) {
      hand.focus();
      this.drag(event, hand, side);
    } else {
      this.drawNew(event);
    }
  }

  drag(event, hand, side) {
    const id = hand.dataset.piece;
    const before = place(this.piece(id));
    const gesture = this.tell.gesture();
    this.held = { id };
    this.track(
      event,
      (dx, dy) => {
        const now = side ? sized(before, side, dx, dy) : { x: before.x + dx, y: before.y + dy };
        this.put(hand, { ...place(this.piece(id)), ...now });
        this.tell.set(id, now, gesture);
      },
      () => {
        this.held = null;
      },
    );
  }

  drawNew(event) {
    const box = this.hands.getBoundingClientRect();
    const from = [(event.clientX - box.left) / this.ratio, (event.clientY - box.top) / this.ratio];
    const drawn = make("div", "drawing");
    let values = null;
    this.hands.append(drawn);
    this.track(
      event,
      (dx, dy) => {
        values = {
          x: Math.round(Math.min(from[0], from[0] + dx)),
          y: Math.round(Math.min(from[1], from[1] + dy)),
          width: Math.abs(dx),
          height: Math.abs(dy),
        };
        Object.assign(drawn.style, {
          left: `${values.x * this.ratio}px`,
          top: `${values.y * this.ratio}px`,
          width: `${values.width * this.ratio}px`,
          height: `${values.height * this.ratio}px`,
        });
      },
      () => {
        drawn.remove();
        if (values && values.width >= DRAWN_AT_LEAST_PX && values.height >= DRAWN_AT_LEAST_PX) this.tell.draw(values);
        else this.tell.choose(null);
      },
    );
  }

  track(event, moved, done) {
    const from = [event.clientX, event.clientY];
    this.hands.setPointerCapture(event.pointerId);
    const move = (now) => moved(Math.round((now.clientX - from[0]) / this.ratio), Math.round((now.clientY - from[1]) / this.ratio));
    const end = () => {
      this.hands.removeEventListener("pointermove", move);
      this.hands.removeEventListener("pointerup", end);
      this.hands.removeEventListener("pointercancel", end);
      done();
    };
    this.hands.addEventListener("pointermove", move);
    this.hands.addEventListener("pointerup", end);
    this.hands.addEventListener("pointercancel", end);
  }

  key(event) {
    const hand = event.target.closest(".hand");
    const arrow = ARROWS[event.key];
    if (!hand || !arrow || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    const far = event.shiftKey ? 10 : 1;
    const [dx, dy] = arrow.map((step) => step * far);
    const piece = this.piece(hand.dataset.piece);
    const values = event.altKey
      ? { width: Math.max(SMALLEST_PX, piece.width + dx), height: Math.max(SMALLEST_PX, piece.height + dy) }
      : { x: piece.x + dx, y: piece.y + dy };
    Object.assign(piece, values);
    this.put(hand, place(piece));
    this.tell.set(piece.id, values);
  }
}

// Only what this side changes, so that nothing else that is on its way is undone.
function sized(before, side, dx, dy) {
  const now = {};
  if (side.includes("e")) now.width = Math.max(SMALLEST_PX, before.width + dx);
  if (side.includes("s")) now.height = Math.max(SMALLEST_PX, before.height + dy);
  if (side.includes("w")) {
    now.width = Math.max(SMALLEST_PX, before.width - dx);
    now.x = before.x + before.width - now.width;
  }
  if (side.includes("n")) {
    now.height = Math.max(SMALLEST_PX, before.height - dy);
    now.y = before.y + before.height - now.height;
  }
  return now;
}
