// Whether a face is installed on this computer: text in it is as wide as in what stands in for it, or it is not.
const SAMPLE = "mmwwliIL Reed warbler 0176";
const STAND_INS = ["monospace", "serif"];
const known = new Map();

export function installed(name) {
  if (!known.has(name)) known.set(name, find(name));
  return known.get(name);
}

function find(name) {
  const context = document.createElement("canvas").getContext("2d");
  const width = (face) => {
    context.font = `72px ${face}`;
    return context.measureText(SAMPLE).width;
  };
  return STAND_INS.some((standIn) => width(`"${name}", ${standIn}`) !== width(standIn));
}
