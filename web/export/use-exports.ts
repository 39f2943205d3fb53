/** The exports of a shot as the server has them, followed while one is under way. */
import { useCallback, useEffect, useRef, useState } from 'react';
import { request } from '../api/client.ts';
import type { ExportInfo } from '../api/types.ts';
import { isRunning, tellTrouble } from './export-row.tsx';

/** The shot's exports, kept up to date while one is under way. */
export function useExports(shotId: string | undefined) {
  const [list, setList] = useState<readonly ExportInfo[] | null>(null);
  const watched = useRef(new Map<string, EventSource>());
  const reload = useCallback(async () => {
    if (shotId) setList(await request<ExportInfo[]>('GET', `/shots/${shotId}/exports`));
  }, [shotId]);
  useEffect(() => {
    reload().catch(tellTrouble);
    const sources = watched.current;
    return () => {
      for (const source of sources.values()) source.close();
      sources.clear();
    };
  }, [reload]);
  useEffect(() => {
    for (const info of list ?? []) {
      if (!isRunning(info) || watched.current.has(info.id)) continue;
      const source = new EventSource(`/api/exports/${info.id}/events`);
      watched.current.set(info.id, source);
      source.onmessage = (event: MessageEvent<string>) => {
        const next = JSON.parse(event.data) as ExportInfo;
        setList((all) => all?.map((each) => (each.id === next.id ? next : each)) ?? null);
        if (isRunning(next)) return;
        source.close();
        watched.current.delete(info.id);
      };
    }
  }, [list]);
  return { list, reload };
}
