/** A line in which work stands: one piece after the other, so that what one may take is the most that all take. */
export function inLine(): <T>(work: () => Promise<T>) => Promise<T> {
  let last: Promise<unknown> = Promise.resolve();
  return (work) => {
    const done = last.then(work);
    last = done.catch(() => undefined);
    return done;
  };
}
