// The draft as it stands on the server, told piece by piece as it changes.
export class Draft {
  constructor(stageId) {
    this.id = stageId;
    this.known = new Map();
    // By piece and property: what our own edits came to, and when: what is told of the time before does not undo it.
    this.ours = new Map();
    this.document = null;
  }

  // edited: of all stages; gives whether this one was told of
  take(edited, whole) {
    const told = edited.filter((one) => one.id === this.id);
    for (const one of told) this.takeOne(one, whole);
    return told.length > 0;
  }

  takeOne({ order, pieces, at = Number.POSITIVE_INFINITY, ...rest }, whole) {
    if (whole) {
      this.known.clear();
      this.ours.clear();
    }
    for (const piece of pieces) this.known.set(piece.id, { ...piece, ...this.later(piece.id, at) });
    const here = new Set(order);
    for (const id of this.known.keys()) if (!here.has(id)) this.known.delete(id);
    this.document = { ...rest, pieces: order.map((id) => this.known.get(id)).filter(Boolean) };
  }

  piece(id) {
    return this.document?.pieces.find((piece) => piece.id === id);
  }

  // Ours that came after that; what was told since is ours no more.
  later(id, at) {
    const ours = [...(this.ours.get(id) ?? [])].filter(([, own]) => own.at > at);
    this.ours.set(id, new Map(ours));
    return Object.fromEntries(ours.map(([name, own]) => [name, own.value]));
  }

  // What was asked for counts here at once, before the server tells of it. at: the draft that it made
  guess(id, values, at = 0) {
    const piece = this.piece(id);
    if (!piece) return;
    Object.assign(piece, values);
    const ours = this.ours.get(id) ?? new Map();
    for (const [name, value] of Object.entries(values)) ours.set(name, { value, at });
    this.ours.set(id, ours);
  }
}
