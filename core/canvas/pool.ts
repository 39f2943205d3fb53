/**
 * Surfaces that are used again: a fresh one costs several times as much as one that is wiped. What is made within one piece of
 * work goes back when it ends, but for what is kept.
 */
import { wipe, type MakeSurface, type Surface } from './surface.ts';

const bytesOf = ({ width, height }: Surface): number => width * height * 4;

export class SurfacePool {
  private readonly free = new Map<string, Surface[]>();
  private freeBytes = 0;
  private lent: Set<Surface> | null = null;

  /** @param bound bytes of surfaces that lie unused at most. */
  constructor(
    private readonly fresh: MakeSurface,
    private readonly bound: number,
  ) {}

  /** Bytes of surfaces that lie unused now. */
  get bytes(): number {
    return this.freeBytes;
  }

  /** Gives a wiped surface. Within `during` it is lent until that ends, else it is the caller's to give back. */
  readonly make: MakeSurface = (width, height, deep = false) => {
    const found = deep ? undefined : this.free.get(`${width}x${height}`)?.pop();
    if (found) {
      this.freeBytes -= bytesOf(found);
      found.context.filter = 'none';
      wipe(found);
    }
    const surface = found ?? this.fresh(width, height, deep);
    if (!deep) this.lent?.add(surface);
    return surface;
  };

  /** Does a piece of work, whose surfaces go back at its end. Work inside work is part of it. */
  during<T>(work: () => T): T {
    if (this.lent) return work();
    this.lent = new Set();
    try {
      return work();
    } finally {
      const { lent } = this;
      this.lent = null;
      for (const surface of lent) this.giveBack(surface);
    }
  }

  /** Takes a surface out of what goes back by itself. */
  keep<T extends Surface>(surface: T): T {
    this.lent?.delete(surface);
    return surface;
  }

  /** Takes back a surface that nobody will draw on or show any more; within `during`, once that has ended. */
  giveBack(surface: Surface): void {
    if (this.lent) {
      this.lent.add(surface);
      return;
    }
    if (this.freeBytes + bytesOf(surface) > this.bound) this.dropOldest(bytesOf(surface));
    if (this.freeBytes + bytesOf(surface) > this.bound) return;
    const key = `${surface.width}x${surface.height}`;
    const list = this.free.get(key) ?? [];
    list.push(surface);
    // Sizes asked for last are kept longest.
    this.free.delete(key);
    this.free.set(key, list);
    this.freeBytes += bytesOf(surface);
  }

  private dropOldest(room: number): void {
    for (const [key, list] of this.free) {
      while (list.length > 0 && this.freeBytes + room > this.bound) this.freeBytes -= bytesOf(list.pop()!);
      if (list.length === 0) this.free.delete(key);
      if (this.freeBytes + room <= this.bound) return;
    }
  }
}
