-- Who is known by a number: rolls, each loaded whole before it counts, their people, and what one says of them oneself.
CREATE TABLE "rolls" (
  "id" integer PRIMARY KEY,
  "source" text NOT NULL,
  "made" text NOT NULL DEFAULT '',
  "at" timestamp with time zone NOT NULL DEFAULT now(),
  "state" text NOT NULL,
  "instance" text,
  "people" integer NOT NULL DEFAULT 0,
  "odd" jsonb,
  "news" jsonb
);
--> statement-breakpoint
CREATE TABLE "people" (
  "roll" integer NOT NULL REFERENCES "rolls" ("id"),
  "id" integer NOT NULL,
  "call" text NOT NULL,
  "first" text NOT NULL,
  "last" text NOT NULL,
  "town" text NOT NULL,
  "area" text NOT NULL,
  PRIMARY KEY ("roll", "id")
);
--> statement-breakpoint
CREATE TABLE "person_marks" (
  "id" integer PRIMARY KEY,
  "pinned" boolean NOT NULL,
  "note" text NOT NULL,
  "call" text NOT NULL,
  "name" text NOT NULL
);
