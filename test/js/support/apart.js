// For files that are tested one after another in one process: each gets its own copy of every module of ours, and tells its tests
// to whoever runs them (see together.js).
const OURS = new URL("../../../", import.meta.url).href;
const COLLECTED = new URL("collected.js", import.meta.url).href;

// What a file of tests, or a module that it brought, asks for is asked for in that file's own name.
export async function resolve(name, context, next) {
  const file = new URL(context.parentURL ?? "file:///").searchParams.get("of");
  if (file === null) return next(name, context);
  if (name === "node:test") return { url: `${COLLECTED}?of=${file}`, shortCircuit: true };
  const found = await next(name, context);
  if (!found.url.startsWith(OURS) || found.url.includes("/node_modules/")) return found;
  const url = new URL(found.url);
  url.searchParams.set("of", file);
  return { ...found, url: url.href };
}
