import { z } from 'zod';
import { readSecret, saveSecret } from '../secrets';

const accountSchema = z.object({ name: z.string(), password: z.string() });
/** Name and password for a directory. */
export type Account = z.infer<typeof accountSchema>;

/** The account that is saved for a directory; null if there is none, or if it cannot be decrypted. */
export async function accountOf(source: string): Promise<Account | null> {
  const text = await readSecret(`directory/${source}`);
  return text === null ? null : accountSchema.parse(JSON.parse(text));
}

/** Saves the account for a directory; null deletes it. */
export const keepAccount = (source: string, account: Account | null): Promise<void> =>
  saveSecret(`directory/${source}`, account && JSON.stringify(account));
