-- Who keyed up on which talkgroup, counted by day: one log, replaced whole.
CREATE TABLE "key_up_logs" (
  "id" integer PRIMARY KEY,
  "source" text NOT NULL,
  "at" timestamp with time zone NOT NULL DEFAULT now(),
  "key_ups" integer NOT NULL,
  "odd" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "key_up_days" (
  "day" text NOT NULL,
  "talkgroup" integer NOT NULL,
  "key_ups" integer NOT NULL,
  "counts" bytea NOT NULL,
  PRIMARY KEY ("day", "talkgroup")
);
