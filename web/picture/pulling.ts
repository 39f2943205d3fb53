/** Marks of the active layer's drawing as they would be, shown while the pen pulls at them. */
import type { Mark } from '@tallow/core/document';
import { current, shotFrameOf, shownNow } from '../selection/current.ts';
import { selection } from '../selection/selection.ts';
import { painter } from '../workers/painter-client.ts';
import type { Compositor } from './compositor.ts';
import type { PictureWork } from './picture-place.ts';

export class Pulling {
  private marks: readonly Mark[] | null = null;
  private isDrawing = false;

  constructor(
    private readonly compositor: Compositor,
    private readonly work: PictureWork,
  ) {}

  get isOn(): boolean {
    return this.marks !== null;
  }

  /** Shows marks as they would be. What is pulled meanwhile is shown next. */
  async show(marks: readonly Mark[]): Promise<void> {
    this.marks = marks;
    this.work.begins();
    if (this.isDrawing) return;
    this.isDrawing = true;
    try {
      for (let shown: readonly Mark[] | null = null; this.marks && this.marks !== shown;) {
        shown = this.marks;
        const now = current();
        const { frame, turn } = selection();
        const drawingId = now && shownNow(now, frame)?.drawingId;
        if (!now?.active || !drawingId) break;
        const bitmap = await painter().reshaped({
          ...this.work.place(),
          shotFrame: shotFrameOf(now, frame, turn),
          layerId: now.active.layer.id,
          place: now.place,
          drawingId,
          marks: shown,
        });
        if (this.marks) this.compositor.showReshaped(bitmap);
        else bitmap.close();
      }
    } finally {
      this.isDrawing = false;
    }
  }

  /** A new picture has come: what is pulled is shown in it. */
  showAgain(): void {
    if (this.marks) void this.show([...this.marks]);
  }

  /** The document has them as they are shown: they stay until the picture comes. */
  settle(): void {
    this.marks = null;
    this.work.settled();
    this.work.again();
  }

  /** Shows them as they are in the document. */
  drop(): void {
    this.marks = null;
    this.compositor.showAll();
  }
}
