// Files dropped anywhere on the page, or chosen by a button.
// take(files); opener and input: a button, and the file input it opens
export function dropping(take, { opener, input }) {
  const here = document.querySelector("#drop-here");
  const carries = (event) => event.dataTransfer?.types.includes("Files");
  opener.addEventListener("click", () => {
    delete input.dataset.shelf;
    input.click();
  });
  input.addEventListener("change", () => {
    if (input.files.length > 0) take([...input.files], input.dataset.shelf);
    input.value = "";
  });
  addEventListener("dragover", (event) => {
    if (!carries(event)) return;
    event.preventDefault();
    here.hidden = false;
  });
  addEventListener("dragleave", (event) => {
    if (event.relatedTarget === null) here.hidden = true;
  });
  addEventListener("drop", (event) => {
    if (!carries(event)) return;
    event.preventDefault();
    here.hidden = true;
    take([...event.dataTransfer.files]);
  });
}
