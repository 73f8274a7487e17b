// @ts-check
// Read before the framework, which takes longest of all: the embedded database is opened beside it.
import { openAhead } from '../db/start-thread.mjs';

if (!process.env.DATABASE_URL) openAhead();
