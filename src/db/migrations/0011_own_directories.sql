-- Files that somebody has as directories of their own; their stations stand among the others.
CREATE TABLE "own_directories" (
  "id" text PRIMARY KEY,
  "name" text NOT NULL,
  "at" timestamp with time zone NOT NULL DEFAULT now()
);
