/** The dialog in which a new shot is made. */
import { randomId } from '@tallow/core/document';
import { useState } from 'react';
import { Refused, request } from '../api/client.ts';
import type { Production, ShotSummary } from '../api/types.ts';
import { Button } from '../parts/button.tsx';
import { Dialog } from '../parts/dialog.tsx';
import { Select } from '../parts/select.tsx';
import { BackgroundField, Field, LengthField, RateField, SizeField } from './new-shot-fields.tsx';
import { askedShot, emptyForm, troublesOf, type NewShotForm, type NewShotTroubles } from './new-shot-form.ts';

interface NewShotProps {
  productions: readonly Production[];
  productionId: string;
  onClose: () => void;
  onMade: (shot: ShotSummary) => void;
}

/** What the server found wrong, by field; all of it under the form where it names none. */
const refusalsIn = (error: unknown): Record<string, string> => {
  const errors = error instanceof Refused ? error.problem.errors : undefined;
  if (errors) return Object.fromEntries(errors.map(({ field, message }) => [field, message]));
  return { form: error instanceof Error ? error.message : String(error) };
};

/** The form and what is wrong with it: a name that is not there yet only once the shot was to be made. */
function useForm(productionId: string, onMade: (shot: ShotSummary) => void) {
  const [form, setForm] = useState(() => emptyForm(productionId));
  const [tried, setTried] = useState(false);
  const [refused, setRefused] = useState<Record<string, string>>({});
  const [id] = useState(randomId);
  const troubles = troublesOf(form);
  return {
    form,
    troubles,
    refused,
    shown: (field: keyof NewShotTroubles): string | null =>
      (tried || field !== 'name' ? troubles[field] : null) ?? refused[field] ?? null,
    set: (settings: Partial<NewShotForm>): void => {
      setForm((before) => ({ ...before, ...settings }));
      setRefused({});
    },
    submit: (event: { preventDefault: () => void }): void => {
      event.preventDefault();
      setTried(true);
      if (Object.values(troubles).some(Boolean)) return;
      request<ShotSummary>('POST', '/shots', askedShot(id, form)).then(onMade, (error: unknown) => {
        setRefused(refusalsIn(error));
      });
    },
  };
}

export function NewShot({ productions, productionId, onClose, onMade }: NewShotProps) {
  const { form, troubles, refused, shown, set, submit } = useForm(productionId, onMade);
  return (
    <Dialog
      title="New shot"
      open
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
    >
      <form className="space-y-5" onSubmit={submit} noValidate>
        <Field label="Name" trouble={shown('name')}>
          <input
            autoFocus
            aria-label="Name"
            className="field w-full"
            value={form.name}
            aria-invalid={shown('name') !== null}
            onChange={(e) => {
              set({ name: e.target.value });
            }}
          />
        </Field>
        <Field label="Production">
          <Select
            label="Production"
            className="field w-full"
            value={form.productionId}
            options={productions.map((p) => ({ value: p.id, label: p.name }))}
            onChoose={(productionId) => {
              set({ productionId });
            }}
          />
        </Field>
        <SizeField form={form} set={set} trouble={shown('width') ?? shown('height')} />
        <RateField form={form} set={set} trouble={shown('rate')} />
        <LengthField form={form} set={set} trouble={shown('length')} isSound={!troubles.length && !troubles.rate} />
        <BackgroundField form={form} set={set} trouble={refused['background']} />
        {refused['form'] ? (
          <p role="alert" className="text-harm">
            {refused['form']}
          </p>
        ) : null}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="primary">
            Make the shot
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
