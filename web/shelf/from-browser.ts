/** Variants of brushes and presets that were kept in this browser once: they go to the shelf. */
import { readKept, type KeptKindName } from '@tallow/core/shelf';
import { recall, remember } from '../memory/memory.ts';
import { keep } from './kept.ts';

interface Found {
  readonly kind: KeptKindName;
  readonly name: string;
  readonly what: unknown;
}

const isRecord = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null;
const listIn = (value: unknown): Record<string, unknown>[] => (Array.isArray(value) ? value.filter(isRecord) : []);

/** As they were stored until November 2026, and where. */
const STORED: Readonly<Record<string, (value: unknown) => Found[]>> = {
  'tallow-brushes': (value) =>
    listIn(isRecord(value) && isRecord(value['state']) ? value['state']['own'] : null).map(({ name, tool, brush }) => ({
      kind: 'brush',
      name: String(name),
      what: { tool, brush },
    })),
  'tallow-presets': (value) =>
    Object.entries(isRecord(value) ? value : {}).flatMap(([effect, presets]) =>
      listIn(presets).map(({ name, ...preset }) => ({
        kind: 'preset' as const,
        name: String(name),
        what: { effect, ...preset },
      })),
    ),
};

/** Takes them to the shelf, once. */
export async function bringFromBrowser(): Promise<void> {
  for (const [name, read] of Object.entries(STORED)) {
    const stored = recall(name);
    if (stored === null) continue;
    for (const found of read(stored)) {
      const kept = readKept(found.kind, found.what);
      if ('ok' in kept && !(await keep(found.kind, found.name, kept.ok.what))) return;
    }
    remember(name, null);
  }
}
