import { Application } from './application.ts';

/** One application for all tests; those that kill parts of it start one of their own. */
export default async function setup(): Promise<() => Promise<void>> {
  const application = await Application.start({ demo: true });
  process.env['TALLOW_E2E_ADDRESS'] = application.address;
  return () => application.stop();
}
