// One feed as a lane: who it is, its last lines, its pace over ten minutes.
import { fragmentsOf } from "../link/line.js";
import { markOf } from "../link/marks.js";
import { button, icon, make, svg } from "../house/elements.js";
import { say } from "../house/messages.js";
import { attempt, send } from "../house/send.js";
import { clock, clockSeconds, day, lasting } from "../house/words.js";
import { AddressForm } from "./address.js";
import { openInbox } from "./inbox.js";
import { openMapping } from "./mapping.js";
import { openMicrophones } from "./microphones.js";
import { openRooms } from "./rooms.js";
import { openSets } from "./sets.js";

const STATES = {
  off: { chip: "", drawing: "unplug", words: () => "off" },
  connecting: { chip: "told", drawing: "refresh-cw", words: () => "connecting" },
  live: { chip: "well", drawing: "circle-check", words: (feed, now) => `live, ${lasting(now - feed.since)}` },
  nobody_broadcasting: { chip: "told", drawing: "moon", words: () => "connected, nobody is broadcasting" },
  waiting: {
    chip: "mind",
    drawing: "refresh-cw",
    // What comes to us is not tried again.
    words: (feed) =>
      feed.retry_in === undefined || feed.retry_in === null
        ? `silent since ${clock(feed.since)}`
        : `lost at ${clock(feed.since)}, again in ${lasting(feed.retry_in)}`,
  },
  needs_you: { chip: "mind", drawing: "key-round", words: (feed) => WANTS[feed.want] ?? "needs you" },
};
const WANTS = { broadcast: "needs today’s broadcast", permission: "needs permission", address: "needs another address" };
// What a host can say where it reads.
const PLACES = ["broadcast", "address"];
// As many as have room.
const MOST_ROWS = 6;
const MAY = { read: "read", write: "write" };

export class Lane {
  constructor(feed) {
    this.id = feed.id;
    this.name = make("h2");
    this.about = make("p");
    this.account = make("p", "lane-account");
    this.chip = make("span", "chip");
    this.alone = make("span", "chip told", icon("eye-off"), "draft alone");
    this.lines = make("div", "lane-lines");
    this.bars = svg("svg", {
      viewBox: "0 0 240 44",
      preserveAspectRatio: "none",
      role: "img",
      "aria-label": "Lines in each ten seconds of the last ten minutes",
    });
    this.rate = make("p");
    this.doing = make("div", "lane-do");
    const who = make(
      "div",
      "lane-who",
      markOf(feed.mark),
      this.name,
      this.about,
      this.account,
      make("div", "lane-state", this.chip, this.alone),
    );
    this.element = make("article", "panel-box lane", who, this.lines, make("div", "lane-pace", this.bars, this.rate, this.doing));
    this.element.dataset.feed = feed.id;
  }

  tell(feed, now) {
    const state = STATES[feed.state];
    this.told = feed;
    this.name.textContent = feed.name;
    this.about.textContent = feed.words;
    this.element.setAttribute("aria-label", feed.name);
    this.alone.hidden = !feed.draft_only;
    this.tellAccount(feed.account);
    this.element.classList.toggle("needs", feed.state === "needs_you");
    this.chip.className = `chip ${state.chip}`;
    this.chip.replaceChildren(icon(state.drawing), state.words(feed, now));
    this.drawLines(feed, now);
    this.drawPace(feed);
    this.offer(feed);
  }

  tellAccount(account) {
    this.account.hidden = !account;
    if (account) this.account.textContent = `May ${account.may.map((what) => MAY[what]).join(" and ")}, since ${day(account.since)}`;
  }

  // A feed that does not know what to read asks for it in its lane.
  drawLines(feed) {
    const wanted = feed.state === "needs_you" && PLACES.includes(feed.want);
    if (feed.asks?.length > 0 && (wanted || this.elsewhere)) {
      this.address ??= new AddressForm(feed, () => this.readElsewhere(false));
      this.address.tell(feed, wanted && !this.elsewhere);
      if (this.address.element.parentNode !== this.lines) this.lines.replaceChildren(this.address.element);
      return;
    }
    this.address = null;
    const rows = feed.lines.map((card) => this.row(card));
    if (feed.room) rows.splice(0, Math.max(0, rows.length - MOST_ROWS + 1));
    if (feed.gap)
      rows.push(
        make(
          "p",
          "lane-said",
          `Nothing is known from ${clockSeconds(feed.gap[0])} to ${clockSeconds(feed.gap[1])}: ${feed.kind === "irc" ? "this server keeps no history" : "what was said then cannot be read"}.`,
        ),
      );
    if (["waiting", "needs_you", "nobody_broadcasting"].includes(feed.state)) rows.push(make("p", "lane-said", icon("plug"), feed.reason));
    else if (rows.length === 0 && !feed.room)
      rows.push(make("p", "lane-empty", feed.state === "live" ? `${feed.reason} Lines show here as they come.` : feed.reason));
    if (feed.room) rows.unshift(this.room(feed.room));
    this.lines.replaceChildren(...rows.slice(-MOST_ROWS));
  }

  readElsewhere(on) {
    this.elsewhere = on;
    this.address = null;
    this.drawLines(this.told);
    this.address?.fields[0].input.focus();
  }

  // Who is in the voice room now.
  room({ name, people, count }) {
    const names = people.flatMap((person) => [make("bdi", "", person), ", "]).slice(0, -1);
    const more = count > people.length ? ` and ${count - people.length} more` : "";
    return make("p", "lane-room", icon("mic"), make("b", "", name), count === 0 ? "nobody is there" : make("span", "", ...names, more));
  }

  row(card) {
    const name = make("bdi", "", card.n);
    name.style.setProperty("--night", card.c);
    name.style.setProperty("--day", card.day);
    const text = make("span", "text", ...fragmentsOf(card.f));
    text.dir = "auto";
    const row = make("div", "lane-line", make("time", "", clock(card.t)), name, card.e ? make("span", "lane-event", card.e) : null, text);
    row.dataset.kind = card.k;
    if (card.r) row.insertBefore(make("span", "lane-reply", icon("reply"), card.r.n ?? "an earlier line"), text);
    if (card.v && !card.e) row.insertBefore(make("span", "chip mind", card.v), text);
    if (card.w) row.append(make("span", "chip told", "first line"));
    if (card.ed) row.append(make("span", "chip told", "edited"));
    row.classList.toggle("gone", Boolean(card.pulled));
    if (card.off) row.append(make("span", "chip off", `kept off: ${card.off}`));
    else if (card.pulled) row.append(make("span", "chip", "deleted"));
    return row;
  }

  drawPace(feed) {
    const most = Math.max(4, ...feed.pace);
    const bars = feed.pace.map((lines, slot) => {
      const height = lines === 0 ? 1 : Math.max(3, (lines / most) * 44);
      return svg("rect", { x: slot * 4, y: 44 - height, width: 3, height, fill: feed.mark[1], "fill-opacity": lines === 0 ? 0.35 : 1 });
    });
    this.bars.replaceChildren(...bars);
    this.rate.textContent =
      feed.rate === 0 ? "quiet for a minute" : `${feed.rate} a minute${feed.thinned ? `, ${feed.thinned} too many to be read` : ""}`;
  }

  // Made anew only when what can be done changes, so that focus stays where it is.
  offer(feed) {
    const wanted = feed.wanted && feed.state !== "needs_you";
    const now = [wanted, feed.draft_only, feed.account?.login, feed.consent].join();
    if (this.offered === now) return;
    this.offered = now;
    const connect = wanted
      ? button("Disconnect", "pause", () => this.do("disconnect"), "button plain")
      : button("Connect", "play", () => this.do("connect"), "button plain");
    const remove = button("", "trash-2", () => this.remove(), "button plain");
    remove.setAttribute("aria-label", `Take ${feed.name} away`);
    this.doing.replaceChildren(connect, this.more(feed), remove);
  }

  more(feed) {
    const items = [];
    if (feed.consent) {
      items.push(this.consent(feed));
      if (feed.account) items.push(button("Disconnect the account", "log-out", () => this.do("withdraw"), ""));
    }
    if (feed.asks?.length > 0) items.push(button("Read elsewhere", "waypoints", () => this.readElsewhere(true), ""));
    if (feed.rooms) items.push(button("Another room", "mic", () => openRooms(feed), ""));
    if (feed.sets) items.push(button("Sets of emotes", "smile", () => openSets(this.id), ""));
    if (feed.kind === "microphones") items.push(button("Their links", "mic", () => openMicrophones(this.id), ""));
    if (feed.kind === "irc") items.push(button("Tags", "pencil", () => openMapping(this.id), ""));
    if (feed.kind === "inbox") items.push(button("Address and key", "webhook", () => openInbox(this.id), ""));
    const alone = feed.draft_only ? "On air too" : "Into the draft alone";
    items.push(button(alone, feed.draft_only ? "eye" : "eye-off", () => this.do("draft-only", { on: feed.draft_only ? "0" : "1" }), ""));
    const summary = make("summary", "button plain", icon("ellipsis"));
    summary.setAttribute("aria-label", `More about ${feed.name}`);
    const menu = make("details", "menu lane-menu", summary, make("div", "menu-sheet", ...items));
    menu.addEventListener("click", ({ target }) => target.closest(".menu-sheet") && menu.removeAttribute("open"));
    return menu;
  }

  consent(feed) {
    const link = make("a", "", icon("key-round"), feed.account ? "Change the account" : "Give permission");
    link.href = `/feeds/permission?platform=${encodeURIComponent(feed.platform)}&feed=${this.id}`;
    return link;
  }

  do(what, values) {
    return attempt(() => send(`/feeds/${this.id}/${what}`, values));
  }

  async remove() {
    const name = this.name.textContent;
    const done = await attempt(() => send(`/feeds/${this.id}/remove`));
    if (done) say(`${name} is taken away.`, { undo: () => attempt(() => send(`/feeds/${this.id}/put-back`)) });
  }
}
