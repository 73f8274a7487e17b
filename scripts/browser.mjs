/** How headless Chromium is started everywhere here; `profile` is a fresh folder. */
export const launchOptions = (executablePath, profile) => ({
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
