/** What a new shot's form says: what is typed and chosen, what is wrong with it, and what it asks of the server. */
import { SHOT_LIMITS, textProblem } from '@tallow/core/document';

/** What is typed and chosen, as it stands in the fields. */
export interface NewShotForm {
  readonly name: string;
  readonly productionId: string;
  readonly width: string;
  readonly height: string;
  readonly rate: string;
  readonly length: string;
  readonly unit: 'frames' | 'seconds';
  /** Null is see-through. */
  readonly background: string | null;
}

export const emptyForm = (productionId: string): NewShotForm => ({
  name: '',
  productionId,
  width: '1920',
  height: '1080',
  rate: '24',
  length: '48',
  unit: 'frames',
  background: '#14110f',
});

/** The length in frames, as text: what is typed, or as many as its seconds last. */
export const framesIn = ({ unit, length, rate }: NewShotForm): string =>
  unit === 'frames' ? length : String(Math.round(Number(length) * Number(rate)));

/** The length in seconds, to hundredths. */
export const secondsIn = (form: NewShotForm): number => Number((Number(framesIn(form)) / Number(form.rate)).toFixed(2));

const rangeTrouble = (text: string, { min, max }: { min: number; max: number }, unit: string): string | null => {
  const number = Number(text);
  return text.trim() !== '' && Number.isInteger(number) && number >= min && number <= max
    ? null
    : `A whole number from ${min} to ${max} ${unit}`;
};

export type NewShotTroubles = Readonly<Record<'name' | 'width' | 'height' | 'rate' | 'length', string | null>>;

/** What is wrong in each field, in words; null where nothing is. */
export const troublesOf = (form: NewShotForm): NewShotTroubles => ({
  name: textProblem(form.name, 'The name'),
  width: rangeTrouble(form.width, SHOT_LIMITS.size, 'px'),
  height: rangeTrouble(form.height, SHOT_LIMITS.size, 'px'),
  rate: rangeTrouble(form.rate, SHOT_LIMITS.rate, 'frames per second'),
  length: form.length.trim() === '' ? 'Type a length' : rangeTrouble(framesIn(form), SHOT_LIMITS.length, 'frames'),
});

/** What the server is asked for. @param form in which nothing is wrong. */
export const askedShot = (id: string, form: NewShotForm) => ({
  id,
  productionId: form.productionId,
  name: form.name.trim(),
  width: Number(form.width),
  height: Number(form.height),
  rate: Number(form.rate),
  length: Number(framesIn(form)),
  background: form.background,
});
