/** Canvas calls written down as they are made, to be made again with nothing worked out: what a picture costs at the very least. */
import type { MakeSurface, Surface } from '@tallow/core/render';

type Call = () => void;

export class Recorded {
  private readonly calls: Call[] = [];

  /** Makes surfaces whose contexts write down what is asked of them. */
  recording(make: MakeSurface): MakeSurface {
    return (width, height, deep) => {
      const surface = make(width, height, deep);
      const context = surface.context as unknown as Record<string, unknown>;
      const noting = new Proxy(context, {
        get: (_, name: string) => {
          const value = context[name];
          if (typeof value !== 'function') return value;
          return (...args: unknown[]): unknown => {
            const call = () => (value as (...given: unknown[]) => unknown).apply(context, args);
            this.calls.push(call);
            return call();
          };
        },
        set: (_, name: string, value: unknown) => {
          this.calls.push(() => {
            context[name] = value;
          });
          context[name] = value;
          return true;
        },
      });
      return { ...surface, context: noting as unknown as Surface['context'] };
    };
  }

  /** Forgets what was written down so far. */
  forget(): void {
    this.calls.length = 0;
  }

  /** Makes all calls again, on the surfaces they were made on. */
  again(): void {
    for (const call of this.calls) call();
  }
}
