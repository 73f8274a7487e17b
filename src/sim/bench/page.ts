import { existsSync, readFileSync } from 'node:fs';
import { extname, join, resolve } from 'node:path';

/** The bench's own page: bundled beforehand from src/bench-page, handed out from one folder. */

/** Where the build has put it. */
const FOLDER = resolve(process.env.VERIDON_BENCH_PAGE ?? '.build/bench-page');

const TYPES: Record<string, string> = {
  '.js': 'text/javascript; charset=utf-8',
  '.css': 'text/css; charset=utf-8',
  '.woff2': 'font/woff2',
  '.woff': 'font/woff',
};

/** Its scripts, its colours and its type are its own; nothing else is let in. */
export const PAGE_POLICY = {
  'Content-Security-Policy':
    "default-src 'none'; script-src 'self'; style-src 'self'; font-src 'self'; img-src data:; connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'",
};

/**
 * A part of the page by its path: the page itself, or one of the files of its folder by a plain name; undefined where there is none.
 * `key` is what the page shows when it asks; a page from elsewhere cannot read it.
 */
export function pagePart(path: string, key: string): { type: string; body: string | Buffer } | undefined {
  if (path === '/') return { type: 'text/html; charset=utf-8', body: html(key) };
  const [, name] = /^\/page\/([a-zA-Z0-9-]+\.[a-z0-9]+)$/.exec(path) ?? [];
  const type = TYPES[extname(name ?? '')];
  if (name === undefined || type === undefined || !existsSync(join(FOLDER, name))) return undefined;
  return { type, body: readFileSync(join(FOLDER, name)) };
}

const html = (key: string) => `<!doctype html>
<html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Simulated bench</title>
<link rel="icon" href="data:,"><link rel="stylesheet" href="/page/page.css">
<body><div id="bench" data-key="${key}"></div>
<script type="module" src="/page/main.js"></script></body></html>`;
