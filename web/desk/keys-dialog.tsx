/** The page of keys, made from the actions themselves. */
import { Dialog } from '../parts/dialog.tsx';
import { ACTIONS, HELD, type Action } from '../state/actions.ts';
import { setDesk, useDesk } from '../state/desk.ts';
import { keyText } from '../state/keys.ts';

export function KeysDialog() {
  const open = useDesk((s) => s.keysShown);
  const actions: Action[] = Object.values(ACTIONS);
  const groups = ['Time', 'Drawings', 'View', 'Drawing tools', 'General'] as const;
  return (
    <Dialog
      title="Keys"
      open={open}
      onOpenChange={(keysShown) => {
        setDesk({ keysShown });
      }}
      wide
    >
      <div className="columns-2 gap-8">
        {groups.map((group) => (
          <section key={group} className="mb-5 break-inside-avoid">
            <h3 className="font-name mb-1 text-wax-300">{group}</h3>
            <dl>
              {actions
                .filter((a) => a.group === group)
                .map((a) => (
                  <div key={a.label} className="flex justify-between gap-4 py-0.5">
                    <dt>{a.label}</dt>
                    <dd className="font-mono text-xs text-flame">{a.keys.map(keyText).join('  ')}</dd>
                  </div>
                ))}
              {group === 'View'
                ? HELD.map((h) => (
                    <div key={h.code} className="flex justify-between gap-4 py-0.5">
                      <dt>{h.label}</dt>
                      <dd className="font-mono text-xs text-flame">{keyText({ code: h.code })}</dd>
                    </div>
                  ))
                : null}
            </dl>
          </section>
        ))}
      </div>
      <p className="text-[13px] text-wax-500">
        Keys go by their place on the keyboard, not by the letter printed on them.
      </p>
    </Dialog>
  );
}
