// Beside a game on the one screen there is: a small window that stays above all others, where the browser has such windows.
import { say } from "../house/messages.js";
import { setup } from "./door.js";

const SIZE = { width: 380, height: 520 };
// Nothing shines through it, unlike where it is laid over a picture.
const PAGE = "over&ground=100&size=16";

export function smallWindow(button) {
  const windows = globalThis.documentPictureInPicture;
  button.hidden = !windows;
  button.addEventListener("click", async () => {
    try {
      const { document } = await windows.requestWindow(SIZE);
      document.title = "Prompter";
      document.body.style.margin = "0";
      const page = document.createElement("iframe");
      page.title = "Prompter";
      page.src = `${location.origin}${setup.base}/?${PAGE}`;
      Object.assign(page.style, { position: "fixed", inset: "0", width: "100%", height: "100%", border: "0" });
      document.body.append(page);
    } catch {
      say("The browser opened no such window.", { bad: true });
    }
  });
}
