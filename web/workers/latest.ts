/** Work of which only the latest counts: what is asked for while some is under way waits, and of what waits the newest only. */

type Job = () => Promise<void>;

interface LatestOnly {
  /** Does a job as soon as what is under way is done; a newer one takes its place until then. */
  readonly ask: (job: Job) => void;
  /** Forgets what waits. */
  readonly forget: () => void;
  /** Comes when nothing is under way and nothing waits. */
  readonly done: () => Promise<void>;
}

/** @param failed told of a job that failed; what waits is done all the same. */
export function latestOnly(failed: (error: unknown) => void): LatestOnly {
  let waiting: Job | null = null;
  let running: Promise<void> | null = null;
  const all = async (): Promise<void> => {
    while (waiting) {
      const next = waiting;
      waiting = null;
      try {
        await next();
      } catch (error) {
        failed(error);
      }
    }
    running = null;
  };
  return {
    ask: (job) => {
      waiting = job;
      running ??= all();
    },
    forget: () => {
      waiting = null;
    },
    done: () => running ?? Promise.resolve(),
  };
}
