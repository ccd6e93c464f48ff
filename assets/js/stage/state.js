// The draft as it stands on the server, told piece by piece as it changes.
export class Draft {
  constructor(stageId) {
    this.id = stageId;
    this.known = new Map();
    this.document = null;
  }

  // edited: of all stages; gives whether this one was told of
  take(edited, whole) {
    const told = edited.filter((one) => one.id === this.id);
    for (const one of told) this.takeOne(one, whole);
    return told.length > 0;
  }

  takeOne({ order, pieces, ...rest }, whole) {
    if (whole) this.known.clear();
    for (const piece of pieces) this.known.set(piece.id, piece);
    const here = new Set(order);
    for (const id of this.known.keys()) if (!here.has(id)) this.known.delete(id);
    this.document = { ...rest, pieces: order.map((id) => this.known.get(id)).filter(Boolean) };
  }

  piece(id) {
    return this.document?.pieces.find((piece) => piece.id === id);
  }

  // What was asked for counts here at once, before the server tells of it.
  guess(id, values) {
    const piece = this.piece(id);
    if (piece) Object.assign(piece, values);
  }
}
