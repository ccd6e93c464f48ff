// Rows of a list that is told anew while somebody reads and presses: a row of which the same is told stays the element it is, so that neither
// a press that has begun nor the focus of a key is lost with it.

// Puts elements into a box in their order; whatever stands where it belongs is not touched.
export function place(box, elements) {
  const stay = new Set(elements);
  for (const one of [...box.children]) if (!stay.has(one)) one.remove();
  let at = box.firstElementChild;
  for (const one of elements) {
    if (one === at) at = at.nextElementSibling;
    else box.insertBefore(one, at);
  }
}

export class KeptRows {
  constructor(box) {
    this.box = box;
    this.rows = new Map();
  }

  // rows: [{ key, told, draw }]: what it is known by, what it says, and who draws it where that is another thing now.
  show(rows) {
    const before = this.rows;
    this.rows = new Map(
      rows.map(({ key, told, draw }) => {
        const words = JSON.stringify(told);
        const known = before.get(key);
        return [key, known && known.words === words ? known : { words, element: draw() }];
      }),
    );
    place(
      this.box,
      [...this.rows.values()].map(({ element }) => element),
    );
  }
}
