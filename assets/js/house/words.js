// Times and numbers as the house writes them.
export function clock(ms) {
  const time = new Date(ms);
  return `${String(time.getHours()).padStart(2, "0")}:${String(time.getMinutes()).padStart(2, "0")}`;
}

export function day(ms) {
  return new Date(ms).toLocaleDateString("en-GB", { day: "numeric", month: "short", year: "numeric" });
}

export function clockSeconds(ms) {
  return `${clock(ms)}:${String(new Date(ms).getSeconds()).padStart(2, "0")}`;
}

export function lasting(ms) {
  const seconds = Math.max(0, Math.round(ms / 1000));
  if (seconds < 60) return `${seconds} s`;
  const minutes = Math.floor(seconds / 60);
  return minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
}

export function count(number, one, many = `${one}s`) {
  return `${number.toLocaleString("en").replaceAll(",", " ")} ${number === 1 ? one : many}`;
}
