/** Accidents in the active element, found by the painter a moment after the last change. */
import type { Finding } from '@tallow/core/checks';
import type { Id } from '@tallow/core/document';
import { useEffect } from 'react';
import { create } from 'zustand';
import type { Current } from '../selection/current.ts';
import { useDocument } from '../shot/document.ts';
import { besidePainter } from '../workers/painter-client.ts';

const useFound = create<{ readonly elementId: Id | null; readonly found: readonly Finding[] }>(() => ({
  elementId: null,
  found: [],
}));
const NONE: readonly Finding[] = [];

/** ms without a change after which they are looked for. */
const WAIT_MS = 250;
let timer: ReturnType<typeof setTimeout> | undefined;
/** What was looked for last: several parts of the page show the same. */
let asked: { readonly serial: number; readonly elementId: Id } | null = null;

function lookSoon(elementId: Id): void {
  const { serial } = useDocument.getState();
  if (asked?.serial === serial && asked.elementId === elementId) return;
  asked = { serial, elementId };
  clearTimeout(timer);
  timer = setTimeout(() => {
    void besidePainter()
      .findings(elementId)
      .then((found) => {
        if (found && asked?.elementId === elementId) useFound.setState({ elementId, found });
      });
  }, WAIT_MS);
}

/** What is worth a look on the active element's layers. */
export function useFindings({ doc, element }: Current): readonly Finding[] {
  useEffect(() => {
    lookSoon(element.id);
  }, [doc, element.id]);
  return useFound((s) => (s.elementId === element.id ? s.found : NONE));
}
