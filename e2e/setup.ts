import { Application } from './application.ts';
import { makeShot, SOME_SHOT } from './desk.ts';

/** One application for all tests, with one shot; those that kill parts of it start one of their own. */
export default async function setup(): Promise<() => Promise<void>> {
  const application = await Application.start();
  process.env['TALLOW_E2E_ADDRESS'] = application.address;
  await makeShot(application.address, { name: SOME_SHOT, width: 1920, height: 1080, length: 72 });
  return () => application.stop();
}
