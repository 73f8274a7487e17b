-- One plan written to several radios: what came of each.
CREATE TABLE "batches" (
  "id" text PRIMARY KEY,
  "plan_id" text NOT NULL REFERENCES "plans" ("id"),
  "plan_revision" integer NOT NULL,
  "rows" jsonb NOT NULL,
  "instance" text,
  "at" timestamp with time zone NOT NULL DEFAULT now()
);
