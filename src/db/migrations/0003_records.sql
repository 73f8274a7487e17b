ALTER TABLE "plans" ALTER COLUMN "document" DROP NOT NULL;
--> statement-breakpoint
ALTER TABLE "plans" ADD COLUMN "head" jsonb;
--> statement-breakpoint
ALTER TABLE "plans" ADD COLUMN "bytes" integer;
--> statement-breakpoint
CREATE TABLE "records" (
  "plan_id" text NOT NULL REFERENCES "plans"("id"),
  "kind" text NOT NULL,
  "id" text NOT NULL,
  "position" integer NOT NULL,
  "data" jsonb NOT NULL,
  CONSTRAINT "records_pk" PRIMARY KEY ("plan_id", "kind", "id")
) WITH (fillfactor = 80);
--> statement-breakpoint
CREATE TABLE "snapshots" (
  "plan_id" text NOT NULL REFERENCES "plans"("id"),
  "revision" integer NOT NULL,
  "document" bytea NOT NULL,
  CONSTRAINT "snapshots_pk" PRIMARY KEY ("plan_id", "revision")
);
--> statement-breakpoint
CREATE TABLE "summaries" (
  "plan_id" text PRIMARY KEY NOT NULL REFERENCES "plans"("id"),
  "revision" integer NOT NULL,
  "heard_at" double precision NOT NULL,
  "summary" jsonb NOT NULL
) WITH (fillfactor = 50);
--> statement-breakpoint
ALTER TABLE "plans" SET (fillfactor = 50);
