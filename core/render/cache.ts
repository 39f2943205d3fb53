/** Pictures kept by what they were made from, the longest unused given up first, never above a bound of bytes. */
export class ByteCache<T> {
  private readonly kept = new Map<string, { value: T; bytes: number }>();
  private held = 0;
  private readonly bound: number;
  private readonly release: (value: T) => void;

  /** @param bound bytes kept at most. @param release called with each value given up. */
  constructor(bound: number, release: (value: T) => void = () => undefined) {
    this.bound = bound;
    this.release = release;
  }

  /** Bytes held now. */
  get bytes(): number {
    return this.held;
  }

  get(key: string): T | undefined {
    const entry = this.kept.get(key);
    if (!entry) return undefined;
    this.kept.delete(key);
    this.kept.set(key, entry);
    return entry.value;
  }

  /** Whether it is kept; being asked for, it counts as no use. */
  has(key: string): boolean {
    return this.kept.has(key);
  }

  /** Keeps a value; one larger than the whole bound is not kept. Returns whether it was. */
  set(key: string, value: T, bytes: number): boolean {
    this.delete(key);
    if (bytes > this.bound) return false;
    for (const [oldest] of this.kept) {
      if (this.held + bytes <= this.bound) break;
      this.delete(oldest);
    }
    this.kept.set(key, { value, bytes });
    this.held += bytes;
    return true;
  }

  delete(key: string): void {
    const entry = this.kept.get(key);
    if (!entry) return;
    this.kept.delete(key);
    this.held -= entry.bytes;
    this.release(entry.value);
  }

  clear(): void {
    for (const key of [...this.kept.keys()]) this.delete(key);
  }
}
