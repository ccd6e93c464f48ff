// What the platform sends, frame by frame: what is in each, and of the chosen one what nothing reads.
import { button, icon, make } from "../house/elements.js";

// An object as text, in which fields that nothing reads are marked.
//
// unread: [{path, value}] of what is in it; a frame may hold that deeper down
export function shown(value, unread, steps = "", depth = 0) {
  const space = "  ".repeat(depth);
  if (Array.isArray(value))
    return value.length === 0
      ? ["[]"]
      : [
          "[\n",
          ...value.flatMap((one, index) => [
            `${space}  `,
            ...shown(one, unread, `${steps}[${index}]`, depth + 1),
            index < value.length - 1 ? ",\n" : "\n",
          ]),
          `${space}]`,
        ];
  if (value !== null && typeof value === "object") {
    const names = Object.keys(value);
    if (names.length === 0) return ["{}"];
    return [
      "{\n",
      ...names.flatMap((name, index) => [
        `${space}  `,
        make("span", "json-name", JSON.stringify(name)),
        ": ",
        ...shown(value[name], unread, steps ? `${steps}.${name}` : name, depth + 1),
        index < names.length - 1 ? ",\n" : "\n",
      ]),
      `${space}}`,
    ];
  }
  const marked = unread.some(
    (field) => field.value === value && (steps === field.path || steps.endsWith(`.${field.path}`) || steps.endsWith(`].${field.path}`)),
  );
  const made = make(
    marked ? "mark" : "span",
    marked ? "unread" : typeof value === "string" ? "json-text" : "json-plain",
    JSON.stringify(value),
  );
  if (marked) made.title = "Nothing reads this.";
  return [made];
}

export class Frames {
  constructor({ choose, pin, renew }) {
    this.on = { choose, pin, renew };
    this.root = document.querySelector("#frames");
    this.none = document.querySelector("#frames-none");
    this.counts = document.querySelector("#counts");
  }

  draw({ frames, report, chosen, samples }) {
    this.none.hidden = frames.length > 0;
    const focus = [...this.root.querySelectorAll("button")].indexOf(document.activeElement);
    this.root.replaceChildren(...frames.map((frame, index) => this.row(frame, index, { report, chosen, samples })));
    if (focus >= 0) this.root.querySelectorAll("button")[focus]?.focus();
    this.tell(frames, report);
  }

  row(frame, index, { report, chosen, samples }) {
    const told = report.frames[index];
    const pinned = index < samples;
    const row = make("li", "frame", this.head(frame, index, told, index === chosen), this.pin(index, pinned));
    row.classList.toggle("chosen", index === chosen);
    row.classList.toggle("unread", told.unread);
    row.classList.toggle("pinned", pinned);
    if (index === chosen)
      row.append(
        make(
          "pre",
          "frame-whole",
          ...shown(
            frame,
            (report.chosen ?? []).flatMap((item) => item.unread),
          ),
        ),
      );
    if (pinned && report.samples[index]) row.append(this.otherwise(index, report.samples[index]));
    return row;
  }

  head(frame, index, told, open) {
    const words = told.told === "unread" ? "nothing reads this yet" : told.told;
    const head = make(
      "button",
      "frame-head",
      make("span", "frame-told", words),
      make("span", "frame-text", open ? "" : JSON.stringify(frame)),
    );
    head.type = "button";
    head.setAttribute("aria-expanded", open);
    head.addEventListener("click", () => this.on.choose(index));
    return head;
  }

  pin(index, pinned) {
    const pin = button("", pinned ? "pin-off" : "pin", () => this.on.pin(index), "frame-pin");
    pin.setAttribute("aria-label", pinned ? "It is no sample any more" : "Pin it as a sample");
    pin.setAttribute("aria-pressed", pinned);
    return pin;
  }

  // What becomes of a sample now, and should not.
  otherwise(index, words) {
    const right = button("It is right now", null, () => this.on.renew(index), "button plain");
    return make("p", "frame-otherwise", icon("triangle-alert"), make("span", "", words), right);
  }

  tell(frames, { counts }) {
    if (frames.length === 0) return this.counts.replaceChildren();
    const unread = counts.find(([is]) => is === "unread")?.[1] ?? 0;
    const read = counts.filter(([is]) => is !== "unread").map(([is, count]) => `${count} ${is}`);
    this.counts.replaceChildren(
      `${frames.length} ${frames.length === 1 ? "frame" : "frames"}: ${read.join(", ") || "nothing that is read"}`,
      unread ? make("span", "unread-count", `, ${unread} unread`) : "",
      ".",
    );
  }
}
