// Named sets of rules, switched in one press; made, renamed, taken away, taken along and brought.
import { button, make } from "../house/elements.js";
import { say } from "../house/messages.js";
import { attempt, send, sendRaw } from "../house/send.js";

export class Sets {
  constructor(edit, take) {
    this.edit = edit;
    this.take = take;
    this.choice = document.querySelector("#sets");
    const file = make("input");
    file.type = "file";
    file.accept = ".json,application/json";
    file.hidden = true;
    file.addEventListener("change", () => attempt(() => this.bring(file)));
    const along = make("a", "", "Take along as JSON");
    along.href = "/gate/rules.json";
    along.download = "rules.json";
    document.querySelector("#set-menu").append(
      button(
        "Another set, like this one",
        "copy",
        () => this.ask("Name of the new set", "", (name) => this.send("/gate/sets", { name, from: edit.state.version })),
        "",
      ),
      button(
        "Rename this set",
        "pencil",
        () => this.ask("Name of this set", edit.state.set, (name) => this.send("/gate/sets/rename", { name, from: edit.state.version })),
        "",
      ),
      button("Take this set away", "trash-2", () => this.send("/gate/sets/remove", { from: edit.state.version }), ""),
      along,
      button("Bring a set", "upload", () => file.click(), ""),
      file,
    );
  }

  ask(words, value, done) {
    const input = make("input", "input");
    input.value = value;
    input.maxLength = 40;
    input.setAttribute("aria-label", words);
    const form = make("form", "set-name", input, make("button", "button do", "OK"));
    form.addEventListener("submit", (event) => {
      event.preventDefault();
      form.remove();
      done(input.value);
    });
    document.querySelector("#set-menu").append(form);
    input.focus();
  }

  send(path, values = {}) {
    document.querySelector("#set-menu").closest("details").open = false;
    this.edit.busy = true;
    return attempt(async () => this.take(await send(path, values))).finally(() => {
      this.edit.busy = false;
    });
  }

  async bring(file) {
    const set = await sendRaw("/gate/read", await file.files[0].arrayBuffer());
    await this.edit.change(() => set.rules);
    say(`“${set.name}” is an edit of this set now. It counts when you keep it.`);
  }

  tell({ sets, in_force: inForce }) {
    const words = JSON.stringify([sets, inForce]);
    if (words === this.told) return;
    this.told = words;
    for (const label of this.choice.querySelectorAll("label")) label.remove();
    for (const [index, name] of sets.entries()) {
      const radio = make("input");
      radio.type = "radio";
      radio.name = "set";
      radio.checked = index === inForce;
      radio.addEventListener("change", () => this.send("/gate/use", { set: index, name }));
      this.choice.append(make("label", "", radio, name));
    }
  }
}
