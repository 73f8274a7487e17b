/** Runs once when the server comes up, before the first request. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { start } = await import('./server/start');
  await start();
  const { dispatch } = await import('./server/api/dispatch');
  // The door answers the HTTP interface itself (src/door/api.mjs).
  Object.assign(globalThis, { veridonDispatch: dispatch });
}
