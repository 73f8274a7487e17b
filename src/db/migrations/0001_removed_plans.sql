ALTER TABLE "plans" ADD COLUMN "removed_at" timestamp with time zone;
