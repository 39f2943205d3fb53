/** What was taken away of a shot before, and is on its way. */
import { request } from '../api/client.ts';
import type { ExportInfo } from '../api/types.ts';
import { Button } from '../parts/button.tsx';
import { ExportLine, tellTrouble } from './export-row.tsx';

interface ExportsListProps {
  readonly shotId: string;
  /** Null until it is known. */
  readonly list: readonly ExportInfo[] | null | undefined;
  readonly reload: () => Promise<void>;
}

export function ExportsList({ shotId, list, reload }: ExportsListProps) {
  const hasEnded = list?.some(({ state }) => state !== 'waiting' && state !== 'running') ?? false;
  return (
    <section className="min-w-0 flex-1" aria-label="Exports">
      <div className="mb-4 flex items-center">
        <h2 className="font-name text-lg text-wax-300">Exports of this shot</h2>
        {hasEnded ? (
          <Button
            look="bare"
            className="ml-auto text-[13px]"
            onClick={() => {
              request('DELETE', `/shots/${shotId}/exports`).then(reload).catch(tellTrouble);
            }}
          >
            Clear the list
          </Button>
        ) : null}
      </div>
      {list?.length === 0 ? (
        <p className="text-wax-500">Nothing yet. What you export is listed here and can be fetched again.</p>
      ) : null}
      <ul className="space-y-2">
        {list?.map((info) => (
          <ExportLine key={info.id} info={info} reload={reload} />
        ))}
      </ul>
    </section>
  );
}
