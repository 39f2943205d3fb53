/** How Chromium is started in tests and benchmarks, also as root and without a network. */
export const CHROMIUM = '/usr/bin/chromium';
export const FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];
