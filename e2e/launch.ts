/** How Chromium is started here: Debian's package, no network of its own. */
export const CLOCK = '2027-01-14T17:34:00+01:00';

export const chromium = {
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--lang=en-GB',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
};
