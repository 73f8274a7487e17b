-- When channels were heard: observed, so beside the plan and not in it. The same moment twice is once.
CREATE TABLE "heard" (
  "plan_id" text NOT NULL REFERENCES "plans"("id"),
  "channel_id" text NOT NULL,
  "at" timestamp with time zone NOT NULL,
  PRIMARY KEY ("plan_id", "channel_id", "at")
);
