-- What a label says, as parts; the words are made when they are shown. Older rows have their words in "label".
ALTER TABLE "revisions" ADD COLUMN "label_parts" jsonb;
--> statement-breakpoint
ALTER TABLE "revisions" ALTER COLUMN "label" SET DEFAULT '';
