// What is read aloud by this screen's own voices, where it has one for every part of it.

// t [text, language or nothing] each, v the host's voice by its code, r speed, p pitch, s seconds at most; playing: hush is set while
// something is said. False where it has no such voice: then the machine Bavard runs on says it.
export async function speak({ t: parts, v, r, p, s }, volume, playing) {
  const voices = globalThis.speechSynthesis?.getVoices() ?? [];
  const voiceFor = (language) => voices.find((voice) => voice.lang.toLowerCase().replace("_", "-").startsWith(language.toLowerCase()));
  const said = parts.map(([text, language]) => [text, voiceFor(language ?? v) ?? voiceFor((language ?? v).split("-")[0])]);
  if (!said.every(([, voice]) => voice)) return false;
  const ceiling = setTimeout(() => playing.hush(), s * 1000);
  for (const [text, voice] of said) {
    if (playing.stopped || playing.hushed) break;
    await one(text, voice, { volume, rate: r, pitch: p }, playing);
  }
  clearTimeout(ceiling);
  return true;
}

function one(text, voice, manner, playing) {
  const utterance = Object.assign(new SpeechSynthesisUtterance(text), { voice, lang: voice.lang, ...manner });
  return new Promise((resolve) => {
    playing.hush = () => {
      playing.hushed = true;
      speechSynthesis.cancel();
      resolve();
    };
    utterance.onend = resolve;
    utterance.onerror = resolve;
    speechSynthesis.speak(utterance);
  });
}
