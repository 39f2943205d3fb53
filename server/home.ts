/** Folders of the home. The start command says where that is; tests set their own. */
import { join } from 'node:path';

/** @throws when nobody has said where the home is: files would land wherever the program happens to run. */
export function homeFolder(name: string): string {
  const home = process.env['TALLOW_HOME'];
  if (!home) throw new Error('TALLOW_HOME is not set; use npm start');
  return join(home, name);
}
