// The rooms of a voice service, with who is in them now; whom to follow from one to another.
import { make } from "../house/elements.js";
import { attempt, get, send } from "../house/send.js";

// root: where rooms are listed; follow: a select of people; written: one of rooms to read; platform: its key
export async function listRooms({ root, follow, written }, platform, chosen = {}) {
  const waiting = make("p", "said", "Asking which rooms there are …");
  root.replaceChildren(waiting);
  let rooms = [];
  let texts = [];
  try {
    ({ rooms, texts } = await get(`/feeds/rooms?${new URLSearchParams({ platform })}`));
  } catch (error) {
    if (waiting.isConnected) root.replaceChildren(make("p", "said", error.message));
    return;
  }
  // Asked for another feed meanwhile.
  if (!waiting.isConnected) return;
  if (rooms.length === 0) return root.replaceChildren(make("p", "said", "There is no room yet. Make one on the service, then look again."));
  root.replaceChildren(
    ...rooms.map((room, index) => {
      const radio = make("input");
      Object.assign(radio, { type: "radio", name: "room", value: room.id });
      radio.checked = chosen.room ? chosen.room === room.id : index === 0;
      const people = room.people.map((person) => person.name).join(", ");
      const there = room.people.length === 0 ? "nobody is there" : `${room.people.length} there: ${people}`;
      return make("label", "room", radio, make("b", "", room.name), make("span", "said", there));
    }),
  );
  const all = rooms.flatMap((room) => room.people);
  follow.replaceChildren(new Option("stay in this room", ""), ...all.map((one) => new Option(`go along with ${one.name}`, one.id)));
  follow.value = chosen.follow ?? "";
  written.replaceChildren(new Option("in this room", ""), ...texts.map((one) => new Option(`in ${one.name}`, one.id)));
  written.value = chosen.written ?? "";
  written.closest(".read-text").hidden = texts.length === 0;
}

const sheet = document.querySelector("#room-sheet");
const form = document.querySelector("#room-form");
let feedId = null;

// Another room for a feed that is there.
export function openRooms(feed) {
  feedId = feed.id;
  const { follow, written } = form.elements;
  listRooms({ root: document.querySelector("#room-list"), follow, written }, feed.platform, feed.address ?? {});
  sheet.showModal();
}

document.querySelector("#room-close").addEventListener("click", () => sheet.close());
form.addEventListener("submit", async (event) => {
  event.preventDefault();
  if (await attempt(() => send(`/feeds/${feedId}/room`, new FormData(form)))) sheet.close();
});
