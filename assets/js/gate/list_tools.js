// Lists of words and names: brought in from a file, and taken along as text, CSV or JSON.
import { button, make } from "../house/elements.js";
import { attempt, sendRaw } from "../house/send.js";

const FORMATS = { txt: "Text", csv: "CSV", json: "JSON" };

export function listTools(text, want) {
  const file = make("input");
  file.type = "file";
  file.accept = ".txt,.csv,.json,text/plain,text/csv,application/json";
  file.hidden = true;
  file.addEventListener("change", () =>
    attempt(async () => {
      const read = await sendRaw("/gate/list/read", await file.files[0].arrayBuffer());
      await want([...new Set(`${text()}\n${read.text}`.split("\n").filter(Boolean))].join("\n"));
    }),
  );
  const take = Object.entries(FORMATS).map(([format, words]) =>
    button(
      words,
      "download",
      () =>
        attempt(async () => {
          const made = await sendRaw(`/gate/list/write/${format}`, new URLSearchParams({ text: text() }), { as: "blob" });
          const link = make("a");
          link.href = URL.createObjectURL(made);
          link.download = `list.${format}`;
          link.click();
          setTimeout(() => URL.revokeObjectURL(link.href), 1000);
        }),
      "button plain",
    ),
  );
  return make(
    "div",
    "list-tools",
    button("Bring a file", "upload", () => file.click(), "button plain"),
    file,
    make("span", "said", "take along as"),
    ...take,
  );
}
