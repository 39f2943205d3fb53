/** The token of a home: who has it may use Tallow where others have accounts on the machine. */
import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/**
 * The token where `TALLOW_ACCESS=token` asks for one, kept over restarts; else null: everybody on this machine gets in.
 * @throws for another word: whoever misspells it would believe to be guarded.
 */
export function accessToken(home, env = process.env) {
  const asked = env.TALLOW_ACCESS;
  if (!asked || asked === 'open') return null;
  if (asked !== 'token') throw new Error(`TALLOW_ACCESS must be token or open, not ${asked}.`);
  const file = join(home, 'access-token');
  if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString('base64url'), { mode: 0o600 });
  return readFileSync(file, 'utf8').trim();
}
