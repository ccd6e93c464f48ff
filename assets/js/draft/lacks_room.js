// Whether words of a piece are cut off, by the piece's own edge or by whatever in it clips.
const SLACK_PX = 1.5;
// A face's own box is higher than its letters.
const SLACK_OF_HEIGHT = 0.22;
// What goes on for as long as it likes, and what is cut short on purpose.
const NEVER_WHOLE = ".stack, .seats, [data-piece].chat, .voice-name, .newest-name, .room-name, .shout-last, .alert-message, .shout-words";

const clips = (style) => [style.overflowX, style.overflowY].some((how) => how === "hidden" || how === "clip");

function texts(root) {
  const walker = document.createTreeWalker(root, NodeFilter.SHOW_TEXT, (node) =>
    node.data.trim() === "" || node.parentElement.closest(NEVER_WHOLE) ? NodeFilter.FILTER_REJECT : NodeFilter.FILTER_ACCEPT,
  );
  const found = [];
  while (walker.nextNode()) found.push(walker.currentNode);
  return found;
}

function outside(rect, box) {
  const slack = SLACK_PX + rect.height * SLACK_OF_HEIGHT;
  return (
    rect.left < box.left - SLACK_PX || rect.right > box.right + SLACK_PX || rect.top < box.top - slack || rect.bottom > box.bottom + slack
  );
}

// Nothing in it moves: a piece that something comes into is looked at once that stands.
export function lacksRoom(piece) {
  if (piece.getAnimations?.({ subtree: true }).some((one) => one.playState === "running" && !(one instanceof CSSAnimation))) {
    return piece.hasAttribute("data-no-room");
  }
  const range = document.createRange();
  return texts(piece).some((text) => {
    range.selectNodeContents(text);
    const rects = [...range.getClientRects()].filter(({ width, height }) => width > 0 && height > 0);
    for (let parent = text.parentElement; parent; parent = parent.parentElement) {
      if (parent === piece || clips(getComputedStyle(parent))) {
        const box = parent.getBoundingClientRect();
        if (rects.some((rect) => outside(rect, box))) return true;
      }
      if (parent === piece) return false;
    }
    return false;
  });
}
