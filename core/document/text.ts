/** What a name may be: 1 to 200 characters that a database and a zip file can hold. */
export const NAME_LIMIT = 200;

/** Says what is wrong with a text field, or returns null when nothing is. */
export function textProblem(value: unknown, what: string, limit = NAME_LIMIT): string | null {
  if (typeof value !== 'string') return `${what} must be text.`;
  if (value.includes('\u0000')) return `${what} contains the character U+0000, which cannot be kept. Take it out.`;
  if (!value.isWellFormed()) return `${what} contains half of a surrogate pair. Type that character again.`;
  if (value.trim() === '') return `${what} is empty. Type at least one visible character.`;
  if (value.length > limit) return `${what} has ${value.length} characters; at most ${limit} fit.`;
  return null;
}
