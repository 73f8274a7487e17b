-- What of a directory's news somebody looked at and left as it is.
CREATE TABLE "news_left" (
  "plan_id" text NOT NULL REFERENCES "plans" ("id"),
  "key" text NOT NULL,
  "at" timestamp with time zone NOT NULL DEFAULT now(),
  PRIMARY KEY ("plan_id", "key")
);
