-- How far a job is, for other instances to see.
ALTER TABLE "jobs" ADD COLUMN "progress" jsonb;
--> statement-breakpoint
-- Jobs of processes that were killed: one of each radio stays, which the start closes with what is known of the radio.
UPDATE "jobs" SET "state" = 'failed', "message" = 'Veridon was stopped before this job had ended.', "ended_at" = now()
  WHERE "state" = 'running' AND EXISTS (
    SELECT 1 FROM "jobs" AS "later" WHERE "later"."radio_id" = "jobs"."radio_id" AND "later"."state" = 'running'
      AND ("later"."started_at", "later"."id") > ("jobs"."started_at", "jobs"."id"));
--> statement-breakpoint
-- One job at a time for each radio, whichever instance carries it out.
CREATE UNIQUE INDEX "jobs_one_for_a_radio" ON "jobs" ("radio_id") WHERE "state" = 'running';
