/** What else the same job delivers: settings put aside, each a folder of one zip. */
import { deliveryName, EXPORT_FORMATS, MAX_DELIVERIES, type ExportSettings } from '@tallow/core/formats';
import { Plus, X } from 'lucide-react';
import { Button } from '../parts/button.tsx';

type Delivery = ExportSettings['also'][number];

interface DeliveriesProps {
  readonly settings: ExportSettings;
  readonly onChange: (also: readonly Delivery[]) => void;
}

export function Deliveries({ settings, onChange }: DeliveriesProps) {
  const { also } = settings;
  return (
    <div data-testid="deliveries">
      {also.length > 0 ? (
        <ul className="mb-2 space-y-1" aria-label="Delivered together">
          {also.map((each, i) => (
            <li key={i} className="flex items-center gap-2 rounded-lg bg-soot-900 px-3 py-1.5 text-[13px]">
              <span className="min-w-0 flex-1 truncate">
                <span className="font-mono text-wax-500">{deliveryName({ ...each, also: [] }, i + 1)}</span>{' '}
                {EXPORT_FORMATS[each.format].label}, frames {each.from + 1} to {each.to}
              </span>
              <button
                type="button"
                aria-label={`Take ${EXPORT_FORMATS[each.format].label} out of the job`}
                className="moves grid size-8 place-items-center rounded-lg text-wax-500 hover:bg-soot-800 hover:text-wax-100"
                onClick={() => {
                  onChange(also.toSpliced(i, 1));
                }}
              >
                <X size={14} />
              </button>
            </li>
          ))}
        </ul>
      ) : null}
      <Button
        title="Puts these settings aside: the same job delivers them too, in one zip"
        whyNot={also.length + 1 >= MAX_DELIVERIES ? `${MAX_DELIVERIES} deliveries are the most of one job.` : null}
        onClick={() => {
          const { also: own, ...delivery } = settings;
          onChange([...own, delivery]);
        }}
        className="w-full"
      >
        <Plus size={15} /> Deliver this too
      </Button>
    </div>
  );
}
