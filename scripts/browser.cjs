/** How headless Chromium is started everywhere here; `profile` is a fresh folder. CommonJS, so that scripts and tests can both load it. */
module.exports.launchOptions = (executablePath, profile) => ({
  executablePath,
  headless: true,
  // A slow machine is no fault: what never ends is ended by whoever waits for it.
  timeout: 240_000,
  protocolTimeout: 240_000,
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    // The popups of an address bar that nobody sees are pages of their own, and take as long to load as one of ours.
    '--disable-features=WebUIOmniboxPopup,WebUIOmniboxAimPopup',
    `--user-data-dir=${profile}`,
  ],
});
