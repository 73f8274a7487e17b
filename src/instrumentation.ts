/** Runs once when the server comes up, before the first request. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { dispatch, start } = await import('./server/start');
  await start();
  // The door answers the HTTP interface itself (src/door/api.mjs); without it, while developing, nobody asks for it here.
  const { veridonStarted } = globalThis as { veridonStarted?: (by: typeof dispatch) => void };
  veridonStarted?.(dispatch);
}
