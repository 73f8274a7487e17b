import type { ProblemKind } from '../../core/problems';
import { benchHeaders, benchUrl } from '../bench-address';
import { fetchJson, FetchFailed } from '../fetch-json';
import { Problem } from '../problem';

/** How long a directory may take for a whole search before it counts as not answering, ms. */
export const patienceMs = () => Number(process.env.VERIDON_DIRECTORY_PATIENCE_MS ?? 8000);
/** Bytes of one page; a page of 500 full rows has a quarter of that. */
const LONGEST_PAGE = 1_000_000;

const trouble = (directory: string, status: number, kind: ProblemKind, detail: string) =>
  new Problem(status, kind, `The ${directory} cannot be used just now`, detail);

/** What is said where an answer is not what a directory sends. */
export const rubbish = (directory: string) =>
  trouble(
    directory,
    502,
    'directory-rubbish',
    'What it sent is not a list of entries. Nothing of it was used; try again later.',
  );

/** What is said of each way in which a directory can fail. */
function troubleOf(directory: string, { trouble: what }: FetchFailed): Problem {
  if (typeof what === 'object')
    return what.status === 401
      ? trouble(
          directory,
          502,
          'account-refused',
          'It does not take this name and password. Nothing was fetched; put them right and search again.',
        )
      : trouble(
          directory,
          502,
          'directory-refused',
          `It answered with status ${what.status}. Try again in a while.`,
        );
  switch (what) {
    case 'slow':
      return trouble(
        directory,
        504,
        'directory-slow',
        `It did not answer within ${patienceMs() / 1000} seconds. Your plan is as it was; try again, or search a smaller circle.`,
      );
    case 'away':
      return trouble(
        directory,
        502,
        'directory-away',
        'Nothing answers at its address. Is the bench process running (npm run bench)?',
      );
    case 'cut off':
      return trouble(
        directory,
        502,
        'directory-cut-off',
        'The connection broke before the answer was whole. Try again.',
      );
    case 'too large':
      return trouble(
        directory,
        502,
        'directory-rubbish',
        'Its answer is larger than a directory sends. Nothing of it was used.',
      );
    case 'not JSON':
      return rubbish(directory);
  }
}

/** Asks a directory for JSON. Throws the problem that its failure is for people. */
export async function askDirectory(
  directory: string,
  path: string,
  signal: AbortSignal,
  headers: Record<string, string> = {},
): Promise<unknown> {
  try {
    return await fetchJson(new URL(path, benchUrl()), {
      most: LONGEST_PAGE,
      signal,
      headers: { ...benchHeaders(), ...headers },
    });
  } catch (error) {
    throw error instanceof FetchFailed ? troubleOf(directory, error) : error;
  }
}
