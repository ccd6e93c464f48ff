// What a file says to the runner, kept until it is run.
export const told = { before: [], after: [], beforeEach: [], afterEach: [], test: [] };

export const before = (act) => told.before.push(act);
export const after = (act) => told.after.push(act);
export const beforeEach = (act) => told.beforeEach.push(act);
export const afterEach = (act) => told.afterEach.push(act);
export const test = (...given) => told.test.push(given);
