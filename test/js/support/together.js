// Runs files of tests one after another in one process: the document they all need takes longer to load than most of them to run.
// Each has its own modules, and finds what is global as Node has it.
//   node test/js/support/together.js FILE…
import { register } from "node:module";
import { test } from "node:test";
import { pathToFileURL } from "node:url";

register("./apart.js", import.meta.url);

// What a page still waits for when its last test is over holds nobody up.
for (const name of ["setTimeout", "setInterval"]) {
  const real = globalThis[name];
  globalThis[name] = (...given) => real(...given).unref();
}

const every = async (acts) => {
  for (const act of acts) await act();
};

const fresh = Object.getOwnPropertyDescriptors(globalThis);

function clear() {
  for (const name of Object.getOwnPropertyNames(globalThis)) if (!(name in fresh)) delete globalThis[name];
  for (const [name, was] of Object.entries(fresh)) {
    const now = Object.getOwnPropertyDescriptor(globalThis, name);
    if (now?.value !== was.value || now?.get !== was.get) Object.defineProperty(globalThis, name, was);
  }
}

for (const [number, path] of process.argv.slice(2).entries()) {
  await test(path, async (file) => {
    const url = pathToFileURL(path);
    url.searchParams.set("of", number);
    await import(url.href);
    const { told } = await import(`./collected.js?of=${number}`);
    await every(told.before);
    for (const [name, act] of told.test)
      await file.test(name, async (context) => {
        await every(told.beforeEach);
        try {
          await act(context);
        } finally {
          await every(told.afterEach);
        }
      });
    await every(told.after);
    clear();
  });
}
