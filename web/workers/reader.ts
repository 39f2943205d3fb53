/** Reads bodies of the server's away from the main thread: checking a drawing's thousands of numbers takes longer than a frame. */
import { readEntity, type Drawing, type Entity } from '@tallow/core/document';
import type { Box } from '@tallow/core/geometry';
import { drawingRoom } from '@tallow/core/render';
import { expose, transfer } from 'comlink';
import { passGate, type Gate } from './gate.ts';

/** What a body is, or what is wrong with it. */
export type ReadBody = ReturnType<typeof readEntity>;
/** The same, with the room a drawing takes: to find it, all of its numbers are gone through. */
export interface ReadApart {
  readonly read: ReadBody;
  readonly room: Box | null;
}

/** The memory of a drawing's numbers, to be handed over rather than copied. */
const buffersOf = ({ marks }: Drawing): ArrayBufferLike[] =>
  Object.values(marks).flatMap((mark) =>
    mark.kind === 'shape'
      ? mark.rings.map(({ buffer }) => buffer)
      : [mark.samples.x, mark.samples.y, mark.samples.pressure, mark.samples.altitude, mark.samples.azimuth].map(
          ({ buffer }) => buffer,
        ),
  );

const entityOf = (read: ReadBody): Entity | null => ('ok' in read ? read.ok : null);

/** What reading that can wait waits at. */
let gate: Gate = { sign: null };

const reader = {
  waitAt(at: Gate): void {
    gate = at;
  },

  /** @param canWait whether nobody looks at any of it: pen and picture come first. */
  read(bodies: readonly unknown[], canWait: boolean): ReadApart[] {
    const list = bodies.map((body): ReadApart => {
      if (canWait) passGate(gate);
      const read = readEntity(body);
      const entity = entityOf(read);
      return { read, room: entity?.kind === 'drawing' ? drawingRoom(entity) : null };
    });
    const buffers = list.flatMap(({ read }) => {
      const entity = entityOf(read);
      return entity?.kind === 'drawing' ? buffersOf(entity) : [];
    });
    return transfer(list, [...new Set(buffers)] as ArrayBuffer[]);
  },
};

export type Reader = typeof reader;
expose(reader);
