// Answering in any of the chats that allow it, and how each one took it.
import { icon, make } from "../house/elements.js";
import { Refused, send } from "../house/send.js";
import { clock } from "../house/words.js";
import { markOf } from "../link/marks.js";
import { tellLacks } from "./lacks.js";

const HOW = {
  sending: { drawing: "refresh-cw", words: "on its way" },
  went: { drawing: "check", words: "went" },
  refused: { drawing: "triangle-alert", words: "did not go" },
};

const box = document.querySelector("#answer");
const form = document.querySelector("#answer-form");
const choices = document.querySelector("#answer-feeds");
const answers = document.querySelector("#answers");
const error = document.querySelector("#answer-error");
const lacks = document.querySelector("#answer-lacks");
let known = "";

function choice(feed, chosen) {
  const input = make("input");
  input.type = "checkbox";
  input.name = "feed";
  input.value = feed.id;
  input.checked = chosen;
  input.setAttribute("aria-label", `Answer in ${feed.name}`);
  const label = make("label", "answer-feed", input, markOf(feed.mark), make("span", "", feed.name));
  return label;
}

function row(answer, feeds) {
  const row = make("p", "answer-row", make("time", "", clock(answer.at)), make("span", "answer-text", answer.text));
  for (const { id, state, reason } of answer.feeds) {
    const feed = feeds.find((one) => one.id === id);
    const words = reason ? `${HOW[state].words}: ${reason}` : HOW[state].words;
    row.append(make("span", `answer-how ${state}`, feed ? markOf(feed.mark) : null, icon(HOW[state].drawing), words));
  }
  return row;
}

export function tellAnswers({ feeds, answers: sent }) {
  const able = feeds.filter((feed) => feed.answers);
  const lacking = feeds.filter((feed) => feed.lacks);
  box.hidden = able.length + lacking.length === 0;
  form.hidden = able.length === 0;
  tellLacks(lacks, lacking);
  const now = able.map((feed) => `${feed.id}:${feed.name}`).join();
  if (now !== known) {
    known = now;
    const off = new Set([...choices.querySelectorAll("input:not(:checked)")].map((input) => Number(input.value)));
    choices.replaceChildren(...able.map((feed) => choice(feed, !off.has(feed.id))));
  }
  answers.replaceChildren(...sent.map((answer) => row(answer, feeds)));
}

form.addEventListener("submit", async (event) => {
  event.preventDefault();
  error.hidden = true;
  const feeds = [...choices.querySelectorAll("input:checked")].map((input) => input.value).join(",");
  try {
    await send("/feeds/answer", { text: form.elements.text.value, feeds });
    form.elements.text.value = "";
  } catch (refused) {
    if (!(refused instanceof Refused)) throw refused;
    error.hidden = false;
    error.textContent = refused.message;
  }
});
