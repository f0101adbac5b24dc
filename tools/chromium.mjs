// How Debian's Chromium is started, headless and quiet; shared by the browser tests, the stress test and the bench. The headless
// shell is the same engine without a browser's own windows, which would be drawn for nobody.
export const chromiumOptions = {
  executablePath: '/usr/bin/chromium-headless-shell',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
};
