/** How headless Chromium is started everywhere here; `profile` is a fresh folder. CommonJS, so that scripts and tests can both load it. */
module.exports.launchOptions = (executablePath, profile) => ({
  executablePath,
  headless: true,
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    `--user-data-dir=${profile}`,
  ],
});
