-- Radios are known by an id of ours: not every one has a serial.
ALTER TABLE "radios" ADD COLUMN "id" text;
--> statement-breakpoint
INSERT INTO "radios" ("serial", "model_id", "firmware", "region", "state")
  SELECT DISTINCT ON ("serial") "serial", "model_id", '', 0, 'whole' FROM "jobs"
  ON CONFLICT DO NOTHING;
--> statement-breakpoint
UPDATE "radios" SET "id" = 'rd_' || substr(md5("model_id" || ' ' || "serial"), 1, 16);
--> statement-breakpoint
ALTER TABLE "copies" ADD COLUMN "radio_id" text;
--> statement-breakpoint
ALTER TABLE "copies" DISABLE TRIGGER "sealed";
--> statement-breakpoint
UPDATE "copies" SET "radio_id" = (SELECT "id" FROM "radios" WHERE "radios"."serial" = "copies"."serial");
--> statement-breakpoint
ALTER TABLE "copies" ENABLE TRIGGER "sealed";
--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "radio_id" text;
--> statement-breakpoint
UPDATE "jobs" SET "radio_id" = (SELECT "id" FROM "radios" WHERE "radios"."serial" = "jobs"."serial");
--> statement-breakpoint
ALTER TABLE "copies" DROP COLUMN "serial";
--> statement-breakpoint
ALTER TABLE "jobs" DROP COLUMN "serial";
--> statement-breakpoint
ALTER TABLE "radios" DROP CONSTRAINT "radios_pkey";
--> statement-breakpoint
ALTER TABLE "radios" ADD PRIMARY KEY ("id");
--> statement-breakpoint
ALTER TABLE "radios" ALTER COLUMN "serial" DROP NOT NULL;
--> statement-breakpoint
CREATE UNIQUE INDEX "radios_by_serial" ON "radios" ("model_id", "serial");
--> statement-breakpoint
ALTER TABLE "copies" ALTER COLUMN "radio_id" SET NOT NULL;
--> statement-breakpoint
ALTER TABLE "copies" ADD FOREIGN KEY ("radio_id") REFERENCES "radios"("id");
--> statement-breakpoint
CREATE INDEX "copies_by_radio" ON "copies" ("radio_id", "taken_at");
--> statement-breakpoint
ALTER TABLE "jobs" ALTER COLUMN "radio_id" SET NOT NULL;
--> statement-breakpoint
ALTER TABLE "jobs" ADD FOREIGN KEY ("radio_id") REFERENCES "radios"("id");
