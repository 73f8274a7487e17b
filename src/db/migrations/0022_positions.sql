-- Positions have room between them: what comes between two others gets a number between theirs.
ALTER TABLE "records" ALTER COLUMN "position" TYPE double precision;
--> statement-breakpoint
ALTER TABLE "staged_records" ALTER COLUMN "position" TYPE double precision;
--> statement-breakpoint
ALTER TABLE "staged_records" ALTER COLUMN "position" DROP NOT NULL;
