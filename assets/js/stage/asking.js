// Rows that are edited as a whole: the next edit is one of what this one comes to, also before it is answered; and what is told
// meanwhile is shown once nothing is on its way any more.
// want(values): sends an edit; gives when it is answered
export function asking(want) {
  let asked = 0;
  let show = () => {};
  let latest = null;
  const settle = () => {
    if (asked > 0 || !latest) return;
    const told = latest;
    latest = null;
    show(...told);
  };
  return {
    async give(values) {
      asked += 1;
      try {
        await want(values);
      } finally {
        asked -= 1;
        settle();
      }
    },
    told(act) {
      show = act;
      return (...told) => {
        latest = told;
        settle();
      };
    },
  };
}
