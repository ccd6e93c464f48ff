// What Ruby tells a page: styles of pieces and cards of lines, with what a test cares about.
export const MOTION = {
  in: [{ opacity: 0 }, { opacity: 1 }],
  in_ms: 200,
  out: [{ opacity: 1 }, { opacity: 0 }],
  out_ms: 300,
  room_ms: 150,
  easing: "ease",
};

export function chatStyle(more = {}) {
  const { words, css, ...rest } = more;
  return {
    id: "chat1",
    kind: "chat",
    place: [10, 20, 800, 600],
    opacity: 1,
    side: "front",
    css: { "--text-size": "25px", "--emote-size": "1.2", ...css },
    words: { flow: "stack", times: "none", name_place: "line", newest: "bottom", ...words },
    motion: MOTION,
    parts: ["mark", "name", "text"],
    emote_motion: "moving",
    emotes_alone: "same",
    ticker_speed: 100,
    ...rest,
  };
}

export const stage = (pieces, more = {}) => ({
  width: 1920,
  height: 1080,
  revision: 1,
  order: pieces.map((piece) => piece.id),
  behind: false,
  pieces,
  ...more,
});

export const card = (i, text = `line ${i}`, more = {}) => ({
  i,
  t: i * 10,
  k: "said",
  n: "Ann",
  c: "#aabbcc",
  m: ["circle", "#5fb8d6"],
  f: [["text", text]],
  ...more,
});

// A cue sheet's fields, all of them plain text.
export const CUE_FIELDS = Object.fromEntries(
  `name kind on amount_from amount_to currency months_from months_to number_from number_to feeds roles people first share_percent
  cool_down_s from_min to_min words message length_s importance joins picture_place apart film sound volume aloud motion_in held
  own_type type_face type_size type_weight type_text_colour type_name_colour type_amount_colour type_message_colour
  spoken_name spoken_words spoken_by spoken_voice spoken_speed spoken_pitch spoken_volume spoken_most_s
  motion_out flurry_count flurry_emotes flurry_way flurry_from adds adds_to words_in words_wave words_begins_s words_ends_s
  message_begins_s message_ends_s picture_begins_s picture_ends_s sound_begins_s flurry_begins_s`
    .split(/\s+/)
    .map((name) => [name, { name, kind: "text", label: name, default: "", max: 100 }]),
);
