/** Marks of the active layer that are moved, shown apart from the rest so that they can be moved at once. */
import type { Id } from '@tallow/core/document';
import { invert, multiply, type Matrix } from '@tallow/core/geometry';
import { current, layerMatrix, shotFrameOf } from '../selection/current.ts';
import { selection } from '../selection/selection.ts';
import { painter } from '../workers/painter-client.ts';
import type { Compositor } from './compositor.ts';
import type { PictureWork } from './picture-place.ts';
import { showing } from './showing.ts';
import { sightOptions } from './sight.ts';

export class FloatingSelection {
  private state: { readonly on: boolean; readonly matrix: Matrix | null } = { on: false, matrix: null };

  constructor(
    private readonly compositor: Compositor,
    private readonly work: PictureWork,
  ) {}

  get isOn(): boolean {
    return this.state.on;
  }

  /**
   * Shows some marks apart.
   * @param others layers that have some of them too: then the picture is shown in two, without what lies above.
   */
  begin(markIds: readonly Id[], others: readonly Id[] = []): void {
    const now = current();
    const layer = now?.active?.layer;
    if (!now || !layer) return;
    const { frame, turn } = selection();
    this.state = { on: true, matrix: null };
    this.work.begins();
    const asked = this.state;
    void painter()
      .floatSelection({
        ...this.work.place(),
        shotFrame: shotFrameOf(now, frame, turn),
        layerId: layer.id,
        place: now.place,
        others,
        markIds,
        options: sightOptions(now),
        backdrop: showing().backdrop,
      })
      .then(({ rest, apart }) => {
        if (this.state !== asked && !this.state.on) {
          rest.close();
          apart.close();
          return;
        }
        this.compositor.float(rest, apart, others.length > 0);
        if (this.state.matrix) this.move(this.state.matrix);
      });
  }

  /** Shows them moved by a matrix of element space. */
  move(matrix: Matrix): void {
    this.state = { on: true, matrix };
    const now = current();
    const { view } = this.work.place();
    const placed = now ? multiply(view, layerMatrix(now, selection().frame)) : view;
    this.compositor.moveFloating(multiply(multiply(placed, matrix), invert(placed)));
  }

  /** The document has them where they are shown: they stay until the picture comes. */
  settle(): void {
    this.state = { on: false, matrix: null };
    this.work.settled();
    this.work.again();
  }

  /** Puts them back. */
  drop(): void {
    this.state = { on: false, matrix: null };
    this.compositor.dropFloating();
    this.work.again();
  }
}
