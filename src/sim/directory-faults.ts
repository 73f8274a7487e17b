import type { IncomingMessage, ServerResponse } from 'node:http';
import { z } from 'zod';

/** Ways in which a directory can misbehave. */
export const directoryFaultSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('none') }),
  z.strictObject({ kind: z.literal('slow'), ms: z.int().min(1).max(120_000) }),
  z.strictObject({ kind: z.literal('rubbish') }),
  z.strictObject({ kind: z.literal('cut off') }),
  z.strictObject({ kind: z.literal('bad rows') }),
  z.strictObject({ kind: z.literal('other shape') }),
  z.strictObject({ kind: z.literal('empty') }),
  z.strictObject({ kind: z.literal('refuse') }),
]);
export type DirectoryFault = z.infer<typeof directoryFaultSchema>;

/** Answers with what a directory has, or as its fault has it; undefined is a question that it does not understand. */
export async function meet(
  fault: DirectoryFault,
  request: IncomingMessage,
  response: ServerResponse,
  body: () => object | undefined,
): Promise<void> {
  if (fault.kind === 'refuse') {
    request.destroy();
    return;
  }
  if (fault.kind === 'slow') await new Promise((resolve) => setTimeout(resolve, fault.ms));
  response.setHeader('Content-Type', 'application/json');
  if (fault.kind === 'rubbish') {
    response.end('<html>The directory is being rebuilt</html>');
    return;
  }
  const answer = body();
  if (!answer) {
    response.statusCode = 400;
    response.end(JSON.stringify({ error: 'lat, lon and radius_km are wanted' }));
    return;
  }
  const text = JSON.stringify(answer);
  if (fault.kind === 'cut off') {
    response.setHeader('Content-Length', String(Buffer.byteLength(text)));
    response.write(text.slice(0, text.length / 2));
    setTimeout(() => request.socket.destroy(), 20);
    return;
  }
  response.end(text);
}
