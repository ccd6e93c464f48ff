// What is asked when a shelf is put up, renamed, or gets something from an address.
import { attempt, send } from "../house/send.js";
import { followImport } from "./imports.js";
import { ask } from "./sheet.js";

export function addShelf(changed) {
  ask({
    title: "An empty shelf",
    button: "Put it up",
    fields: [{ name: "name", label: "What is it called?" }],
    work: async (values) => {
      await send("/dress/shelves", values);
      changed();
    },
  });
}

export function addShelfFrom(changed) {
  ask({
    title: "A shelf from an address",
    about: "A pack somewhere on the web. It is fetched, checked and kept here, and can be read again from there.",
    button: "Fetch it",
    fields: [{ name: "address", label: "Address of the pack", placeholder: "https://reedmere.example/marsh-pack.zip" }],
    work: async (values) => followImport((await send("/dress/shelves/from-address", values)).import, changed),
  });
}

export function addByAddress(shelf, changed) {
  ask({
    title: `A picture for ${shelf.name}`,
    about: "It is fetched once, checked, and kept here.",
    button: "Fetch it",
    fields: [
      { name: "address", label: "Address of the picture", placeholder: "https://reedmere.example/wren.png" },
      { name: "code", label: "Its code", placeholder: ":wren:" },
    ],
    work: async (values) => {
      await send(`/dress/shelves/${shelf.id}/emotes`, values);
      changed();
    },
  });
}

export async function readAgain(shelf, changed) {
  const done = await attempt(() => send("/dress/shelves/from-address", { address: shelf.address, shelf: shelf.id }));
  if (done) followImport(done.import, changed);
}

export function rename(shelf, changed) {
  ask({
    title: `Rename ${shelf.name}`,
    button: "Rename",
    fields: [{ name: "name", label: "Name", value: shelf.name }],
    work: async (values) => {
      await send(`/dress/shelves/${shelf.id}`, values);
      changed();
    },
  });
}
