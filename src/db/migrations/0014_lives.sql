-- Plans and radios that follow each other: what both had when they last agreed, so that they find together again.
CREATE TABLE "lives" (
  "radio_id" text PRIMARY KEY REFERENCES "radios" ("id"),
  "plan_id" text NOT NULL REFERENCES "plans" ("id"),
  "plan_revision" integer NOT NULL,
  "image" bytea NOT NULL,
  "apart" jsonb NOT NULL,
  "instance" text,
  "at" timestamp with time zone NOT NULL DEFAULT now()
);
