-- Records on their way into a large plan: read in stretches, so that others come between, and moved in one step. What broke off has no worth, so nothing is logged.
CREATE UNLOGGED TABLE "staged_records" (
	"load" text NOT NULL,
	"plan_id" text NOT NULL,
	"kind" text NOT NULL,
	"id" text NOT NULL,
	"position" integer NOT NULL,
	"data" jsonb NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
