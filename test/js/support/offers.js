// What people with a role may do about a line, by where it is, as Ruby says it with the page; a test of the page's set-up compares the two.
export const OFFERS = {
  arrived: [],
  held: ["pull", "let_go"],
  waits: ["pull", "let_go"],
  nowhere: ["pull"],
  aired: ["pull"],
  draft: ["pull"],
  off: ["let_go"],
  left: ["let_go"],
  washed: ["let_go"],
  pulled: ["let_go"],
  deleted: ["let_go"],
};
