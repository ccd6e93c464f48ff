// Frames that came together, as one frame that does what all of them do, one after another: drawn once, and not once for each of them, as
// after a flood, a line that stalled or a page that slept.
//
// frames: as PrompterDesk tells them, oldest first, none of them a whole picture. Whatever changes is told anew as it is by then, so the last
// word on anything counts.
export function asOne(frames) {
  const one = { lines: new Map(), states: {}, marks: {}, deeds: new Map() };
  for (const { lines = [], states, marks, deeds = [], ...more } of frames) {
    for (const card of lines) one.lines.set(card.i, card);
    Object.assign(one.states, states);
    Object.assign(one.marks, marks);
    for (const deed of deeds) one.deeds.set(deed.id, deed);
    Object.assign(one, more);
  }
  const { lines, deeds, ...rest } = one;
  return { ...rest, lines: [...lines.values()], ...(deeds.size > 0 && { deeds: [...deeds.values()] }) };
}
