// The microphone page: switch it on, see that one is heard and shown, mute with a key.
import { lengthOf, Meter, NO_FLOOR, SILENCE } from "./level.js";
import { Voice, wordsOf } from "./voice.js";

const at = (id) => document.querySelector(`#${id}`);
const SPREAD = 22;

function draw({ state, settings }) {
  at("says").textContent = wordsOf(state, settings);
  if (state.you) at("you").textContent = state.you;
  at("face").dataset.state = state.talks ? "talks" : settings.muted ? "muted" : state.listens && state.open ? "heard" : "off";
  at("trouble").hidden = !state.trouble;
  at("trouble").textContent = state.trouble ?? "";
  at("on").lastElementChild.textContent = settings.on ? "Switch it off" : "Switch it on";
  at("on").classList.toggle("do", !settings.on);
  at("on").disabled = state.gone;
  at("mute").disabled = !settings.on || state.gone;
  at("mute").setAttribute("aria-pressed", settings.muted);
  at("mute").children[1].textContent = settings.muted ? "Muted" : "Mute";
  at("gain-told").value = `${settings.gain > 0 ? "+" : ""}${settings.gain} dB`;
  at("floor-told").value = settings.floor > NO_FLOOR ? `${settings.floor} dB` : "off";
  for (const name of ["gain", "floor"]) {
    const { min, max } = at(name);
    at(name).style.setProperty("--filled", `${((settings[name] - min) / (max - min)) * 100}%`);
  }
  at("floor-mark").hidden = settings.floor <= NO_FLOOR;
  at("floor-mark").style.insetInlineStart = `${lengthOf(-settings.floor) * 100}%`;
}

// Painted a few times a second, as far as it was loudest since: painting costs more than all else that this page does.
const meter = new Meter((length) => {
  at("bar").style.transform = `scaleX(${length})`;
  at("left").style.transform = `translateX(${-length * SPREAD}px)`;
  at("right").style.transform = `translateX(${length * SPREAD}px)`;
});

const voice = new Voice({ changed: draw, heard: (level) => meter.heard(voice.settings.muted ? SILENCE : level) });
draw(voice);
voice.connect(document.body.dataset.socket);
voice.list(at("device"));
navigator.mediaDevices?.addEventListener("devicechange", () => voice.list(at("device")));

async function turn() {
  if (voice.settings.on) return voice.off();
  await voice.on();
  voice.list(at("device"));
}
at("on").addEventListener("click", turn);
at("mute").addEventListener("click", () => voice.mute());
at("device").addEventListener("change", ({ target }) => voice.choose(target.value));
for (const name of ["gain", "floor"]) {
  at(name).value = voice.settings[name];
  at(name).addEventListener("input", ({ target }) => voice.keep({ [name]: Number(target.value) }));
}
document.addEventListener("keydown", (event) => {
  const typing = event.target.matches("input, textarea, select") || event.ctrlKey || event.metaKey || event.altKey;
  if (event.key.toLowerCase() === "m" && !event.repeat && !typing && voice.settings.on) voice.mute();
});
if (voice.settings.on) voice.on().then(() => voice.list(at("device")));
// At the link for anybody, this browser is known again.
try {
  localStorage.setItem("bavard.microphone.own", JSON.stringify({ path: location.pathname, name: at("you").textContent }));
} catch {
  // It is asked for its name again.
}
