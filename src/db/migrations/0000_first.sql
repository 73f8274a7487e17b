CREATE TABLE "plans" (
  "id" text PRIMARY KEY NOT NULL,
  "name" text NOT NULL,
  "model_id" text NOT NULL,
  "document" jsonb NOT NULL,
  "revision" integer NOT NULL,
  "undo_head" integer,
  "redo_head" integer,
  "created_at" timestamp with time zone DEFAULT now() NOT NULL,
  "updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "revisions" (
  "plan_id" text NOT NULL REFERENCES "plans"("id"),
  "revision" integer NOT NULL,
  "kind" text NOT NULL,
  "edit" jsonb NOT NULL,
  "inverse" jsonb NOT NULL,
  "label" text NOT NULL,
  "before_undo" integer,
  "before_redo" integer,
  "at" timestamp with time zone DEFAULT now() NOT NULL,
  CONSTRAINT "revisions_pk" PRIMARY KEY ("plan_id", "revision")
);
--> statement-breakpoint
CREATE TABLE "radios" (
  "serial" text PRIMARY KEY NOT NULL,
  "model_id" text NOT NULL,
  "firmware" text NOT NULL,
  "region" integer NOT NULL,
  "state" text NOT NULL,
  "first_seen" timestamp with time zone DEFAULT now() NOT NULL,
  "last_seen" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "copies" (
  "id" text PRIMARY KEY NOT NULL,
  "serial" text NOT NULL REFERENCES "radios"("serial"),
  "model_id" text NOT NULL,
  "reason" text NOT NULL,
  "sha256" text NOT NULL,
  "image" bytea NOT NULL,
  "taken_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE INDEX "copies_by_serial" ON "copies" ("serial", "taken_at");
--> statement-breakpoint
CREATE FUNCTION "copies_are_sealed"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'a sealed copy is never changed or removed';
END
$$;
--> statement-breakpoint
CREATE TRIGGER "sealed" BEFORE UPDATE OR DELETE ON "copies" FOR EACH ROW EXECUTE FUNCTION "copies_are_sealed"();
--> statement-breakpoint
CREATE TABLE "jobs" (
  "id" text PRIMARY KEY NOT NULL,
  "kind" text NOT NULL,
  "serial" text NOT NULL,
  "model_id" text NOT NULL,
  "plan_id" text,
  "plan_revision" integer,
  "copy_id" text,
  "state" text NOT NULL,
  "message" text NOT NULL,
  "result" jsonb,
  "started_at" timestamp with time zone DEFAULT now() NOT NULL,
  "ended_at" timestamp with time zone
);
--> statement-breakpoint
CREATE INDEX "jobs_by_start" ON "jobs" ("started_at");
