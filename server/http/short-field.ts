/** A field's name as it is said back to whoever sent it: long ones are cut, and one without a name is said to be. */
export const shortField = (name: string): string =>
  name === '' ? '(no name)' : name.length > 60 ? `${name.slice(0, 59)}…` : name;
