/** What the saver needs of a page, for tests: a browser store, locks of tabs, channels between tabs. */
import 'fake-indexeddb/auto';

type Held = (lock: object | null) => unknown;

/** Locks as one page has them: a second request for one that is held gets none. */
class Locks {
  private readonly names = new Set<string>();

  async request(name: string, _: { ifAvailable: true }, held: Held): Promise<void> {
    if (this.names.has(name)) {
      await held(null);
      return;
    }
    this.names.add(name);
    try {
      await held({ name });
    } finally {
      this.names.delete(name);
    }
  }
}

/** Nobody listens: there is one tab. */
class Silent {
  onmessage: unknown = null;
  postMessage(): void {
    // Nobody listens.
  }
  close(): void {
    // There is nothing to close.
  }
}

const remembered = new Map<string, string>();

/** Makes the globals of a page where Node.js has none. */
export function makePage(): void {
  Object.defineProperty(globalThis, 'navigator', { value: { locks: new Locks() }, configurable: true });
  Object.assign(globalThis, {
    BroadcastChannel: Silent,
    document: { visibilityState: 'visible' },
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
    localStorage: {
      getItem: (key: string) => remembered.get(key) ?? null,
      setItem: (key: string, value: string) => {
        remembered.set(key, value);
      },
    },
  });
}

/** Comes when something is so. @throws after half a minute, long enough beside whatever else the machine does. */
export async function until(isSo: () => boolean | Promise<boolean>, what = 'it'): Promise<void> {
  const end = Date.now() + 30_000;
  while (!(await isSo())) {
    if (Date.now() > end) throw new Error(`Waited half a minute for ${what}`);
    await new Promise((next) => setTimeout(next, 5));
  }
}
