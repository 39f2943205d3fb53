/**
 * A gate that what can wait passes between two steps of its work: closed while the pen is down or the picture is waited
 * for. It is a number in memory that all threads share, so that it is seen in the middle of a drawing, where no message is.
 */
export interface Gate {
  /** The shared number: 1 while closed. Null where the browser shares no memory; then nothing waits. */
  readonly sign: Int32Array | null;
}

/** Longest wait at the gate, ms: whoever closed it may be gone. */
const LONGEST_MS = 4000;

export const makeGate = (): Gate => ({
  sign: globalThis.crossOriginIsolated ? new Int32Array(new SharedArrayBuffer(4)) : null,
});

/** Closes or opens it for all threads. */
export function setGate({ sign }: Gate, closed: boolean): void {
  if (!sign) return;
  Atomics.store(sign, 0, closed ? 1 : 0);
  if (!closed) Atomics.notify(sign, 0);
}

/** Stands still until the gate is open; not for the main thread. */
export function passGate({ sign }: Gate): void {
  if (sign) Atomics.wait(sign, 0, 1, LONGEST_MS);
}
