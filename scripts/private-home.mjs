/** A home is its owner's alone: other accounts of the machine read nothing in it. */
import { chmodSync, lstatSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

const [FOLDER, FILE, MODES] = [0o700, 0o600, 0o777];
/** The database's own user has to get through to its folder, and can look at nothing on the way. */
const THROUGH = 0o711;

function setMode(path, now, wanted) {
  if ((now & MODES) !== wanted) chmodSync(path, wanted);
}

/** Folders and files under a path, but for those of other users: the database looks after its own. */
function closeAll(path) {
  for (const entry of readdirSync(path, { withFileTypes: true })) {
    const inside = join(path, entry.name);
    const { mode, uid } = lstatSync(inside);
    if (uid !== process.getuid?.()) continue;
    if (entry.isDirectory()) {
      setMode(inside, mode, FOLDER);
      if (entry.name !== 'database') closeAll(inside);
    } else if (entry.isFile()) setMode(inside, mode, FILE);
  }
}

/** Takes the rights of others away from a home, in what was made before they were taken away at once too. */
export function closeHome(home) {
  setMode(home, lstatSync(home).mode, process.getuid?.() === 0 ? THROUGH : FOLDER);
  closeAll(home);
}
