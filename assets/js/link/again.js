// A page whose scripts and styles did not all come, as while Bavard starts again, asks for itself once more. A plain script, so that it
// is there before those it looks after.
addEventListener(
  "error",
  ({ target }) => {
    if (["SCRIPT", "LINK"].includes(target?.tagName)) setTimeout(() => location.reload(), 2000);
  },
  true,
);
