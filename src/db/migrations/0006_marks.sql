-- Revisions that a person named: “before the regatta”.
CREATE TABLE "marks" (
  "plan_id" text NOT NULL REFERENCES "plans"("id"),
  "revision" integer NOT NULL,
  "name" text NOT NULL,
  "at" timestamp with time zone NOT NULL DEFAULT now(),
  PRIMARY KEY ("plan_id", "revision")
);
