// The way of the pointer from press to release, in pixels of the stage.
import { make } from "../house/elements.js";

// moved(dx, dy, event): how far it is by now
export function track(event, hands, ratio, moved, done) {
  const from = [event.clientX, event.clientY];
  hands.setPointerCapture(event.pointerId);
  const move = (now) => moved(Math.round((now.clientX - from[0]) / ratio), Math.round((now.clientY - from[1]) / ratio), now);
  const end = () => {
    for (const name of ["pointerup", "pointercancel"]) hands.removeEventListener(name, end);
    hands.removeEventListener("pointermove", move);
    done();
  };
  hands.addEventListener("pointermove", move);
  for (const name of ["pointerup", "pointercancel"]) hands.addEventListener(name, end);
}

// A box drawn on free ground; done(box): nothing where the pointer did not move
export function drawBox(event, hands, ratio, className, done) {
  const edge = hands.getBoundingClientRect();
  const from = [(event.clientX - edge.left) / ratio, (event.clientY - edge.top) / ratio];
  const drawn = make("div", className);
  let box = null;
  hands.append(drawn);
  track(
    event,
    hands,
    ratio,
    (dx, dy) => {
      box = {
        x: Math.round(Math.min(from[0], from[0] + dx)),
        y: Math.round(Math.min(from[1], from[1] + dy)),
        width: Math.abs(dx),
        height: Math.abs(dy),
      };
      const px = (length) => `${length * ratio}px`;
      Object.assign(drawn.style, { left: px(box.x), top: px(box.y), width: px(box.width), height: px(box.height) });
    },
    () => {
      drawn.remove();
      done(box);
    },
  );
}
