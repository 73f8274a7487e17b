-- What a write is to put into a radio, kept before its first byte is sent, so that it can go on after whatever breaks it off.
ALTER TABLE "jobs" ADD COLUMN "image" bytea;
--> statement-breakpoint
-- What people say of sealed copies, which themselves never change.
CREATE TABLE "copy_notes" (
  "copy_id" text PRIMARY KEY REFERENCES "copies" ("id"),
  "note" text NOT NULL
);
--> statement-breakpoint
-- What a radio that was seen says of itself, and what is its own in a fleet: a label, and settings that no plan of several gives it.
ALTER TABLE "radios" ADD COLUMN "battery" integer;
--> statement-breakpoint
ALTER TABLE "radios" ADD COLUMN "label" text NOT NULL DEFAULT '';
--> statement-breakpoint
ALTER TABLE "radios" ADD COLUMN "own" jsonb NOT NULL DEFAULT '{}';
