/** Moves the work out of the clone into the user's data folder, or to the folder that is named. */
import { resolve } from 'node:path';
import { cloneHome, dataHome } from './home.mjs';
import { moveHome } from './moving-home.mjs';

try {
  const to = process.argv[2] ? resolve(process.argv[2]) : dataHome();
  moveHome(cloneHome(), to);
  console.log(`Your work lies in ${to} now.`);
} catch (error) {
  console.error(`${error.message}\nNothing was moved.`);
  process.exit(1);
}
