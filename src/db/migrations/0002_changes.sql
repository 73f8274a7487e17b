CREATE TABLE "changes" (
  "key" text PRIMARY KEY NOT NULL,
  "request" text NOT NULL,
  "receipt" jsonb,
  "at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "instances" (
  "id" text PRIMARY KEY NOT NULL,
  "seen_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "instance" text;
--> statement-breakpoint
ALTER TABLE "revisions" ADD COLUMN "bytes" integer;
