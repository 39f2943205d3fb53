/** Made when it is first needed: that takes up to 40 ms, which opening the page has not. */
let format: Intl.DateTimeFormat | null = null;

/** A day and a time in words. @param at as JSON has it. */
export function whenText(at: string): string {
  format ??= new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });
  return format.format(new Date(at));
}
