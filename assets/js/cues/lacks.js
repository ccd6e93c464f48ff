// Why something that the chosen cue promises does not happen, and one press that helps.
import { button, icon, make } from "../house/elements.js";
import { attempt, send } from "../house/send.js";
import { followImport } from "../dress/imports.js";

// Somewhere for emotes to fly, or more of them at once, is set on the Stage.
const STAGE = { flurry: ["frame", "To the Stage"], ceiling: ["frame", "Set it on the Stage"] };

function help(helps, changed) {
  if (helps === "emotes") {
    const bring = button("Bring eight to begin with", "download", async () => {
      bring.disabled = true;
      const begun = await attempt(() => send("/dress/shelves/ours"));
      if (begun) await followImport(begun.import, changed);
      bring.disabled = false;
    });
    return bring;
  }
  const [name, words] = STAGE[helps] ?? [];
  if (!name) return null;
  const link = make("a", "button", icon(name), words);
  link.href = "/stage";
  return link;
}

// findings: [cue, why, what would help]
export function lacks(panel, findings, changed) {
  panel.hidden = findings.length === 0;
  panel.replaceChildren(
    ...findings.map(([, why, helps]) => {
      const line = make("p", "", icon("info"), make("span", "", why[0].toUpperCase() + why.slice(1)));
      const offered = helps && help(helps, changed);
      if (offered) line.append(offered);
      return line;
    }),
  );
}
