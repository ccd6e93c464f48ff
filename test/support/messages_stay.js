// In tests only: what is said for some seconds stays until it was read, however long the machine takes.
const plain = window.setTimeout.bind(window);
const MESSAGE_MS = 9000;
window.setTimeout = (act, ms, ...more) => plain(act, ms === MESSAGE_MS ? ms * 60 : ms, ...more);
