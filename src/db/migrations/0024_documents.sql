-- Documents of any type are kept alike; a plan is one type. Only plans have a model.
ALTER TABLE "plans" RENAME TO "documents";
--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "type" text DEFAULT 'plan' NOT NULL;
--> statement-breakpoint
ALTER TABLE "documents" ALTER COLUMN "model_id" DROP NOT NULL;
--> statement-breakpoint
ALTER TABLE "revisions" RENAME COLUMN "plan_id" TO "document_id";
--> statement-breakpoint
ALTER TABLE "records" RENAME COLUMN "plan_id" TO "document_id";
--> statement-breakpoint
ALTER TABLE "staged_records" RENAME COLUMN "plan_id" TO "document_id";
--> statement-breakpoint
ALTER TABLE "snapshots" RENAME COLUMN "plan_id" TO "document_id";
--> statement-breakpoint
-- Revisions of several documents that one change made have the same number here.
ALTER TABLE "revisions" ADD COLUMN "change_id" text;
--> statement-breakpoint
CREATE INDEX "revisions_change_id" ON "revisions" ("change_id") WHERE "change_id" IS NOT NULL;
--> statement-breakpoint
-- The documents that are plans.
CREATE VIEW "plans" AS SELECT "id", "name", "model_id", "document", "head", "bytes", "revision", "undo_head", "redo_head", "created_at", "updated_at", "removed_at"
  FROM "documents" WHERE "type" = 'plan';
