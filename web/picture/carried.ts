/** Uses of elements carried about in the picture: it is shown in three parts at once, and drawn anew when they are let go. */
import type { Matrix } from '@tallow/core/geometry';
import { invert, multiply } from '@tallow/core/geometry';
import type { Compositor } from './compositor.ts';

interface Parts {
  readonly below: ImageBitmap;
  readonly apart: ImageBitmap;
  readonly above: ImageBitmap;
}

export class CarriedPicture {
  private parts: Parts | null = null;
  private matrix: Matrix | null = null;
  private isOver = false;

  /** @param view from px of the shot to device pixels. */
  constructor(
    private readonly compositor: Compositor,
    private readonly view: Matrix,
    coming: Promise<Parts>,
  ) {
    void coming.then((parts) => {
      if (this.isOver) close(parts);
      else {
        this.parts = parts;
        this.show();
      }
    });
  }

  /** Shows them elsewhere. @param matrix px of the shot to px of the shot. */
  move(matrix: Matrix): void {
    this.matrix = matrix;
    this.show();
  }

  private show(): void {
    if (!this.parts || !this.matrix) return;
    const { below, apart, above } = this.parts;
    this.compositor.showCarried(below, apart, above, multiply(multiply(this.view, this.matrix), invert(this.view)));
  }

  end(): void {
    this.isOver = true;
    if (this.parts) close(this.parts);
    this.parts = null;
  }
}

function close({ below, apart, above }: Parts): void {
  for (const each of [below, apart, above]) each.close();
}
