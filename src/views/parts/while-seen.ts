/**
 * Hears an event stream while the page is looked at, until what it gives is called; a page in the background holds no connection, of which a
 * browser has six. What ended for good is begun again when the page is looked at.
 *
 * @example useEffect(() => whileSeen('/api/live-events', (data) => take(JSON.parse(data))), []);
 */
export function whileSeen(address: string, hear: (data: string) => void): () => void {
  let source: EventSource | null = null;
  const open = () => {
    const seen = document.visibilityState === 'visible';
    if (!seen) source?.close();
    if (!seen || source?.readyState === EventSource.CLOSED) source = null;
    if (!seen || source) return;
    source = new EventSource(address);
    source.onmessage = ({ data }: MessageEvent<string>) => hear(data);
  };
  open();
  document.addEventListener('visibilitychange', open);
  return () => {
    document.removeEventListener('visibilitychange', open);
    source?.close();
  };
}
