-- A directory of one's own counts once all of it is here. What broke off while it came in is listed as such until somebody takes it away.
ALTER TABLE "own_directories" ADD COLUMN "state" text NOT NULL DEFAULT 'whole';
--> statement-breakpoint
ALTER TABLE "own_directories" ADD COLUMN "instance" text;
