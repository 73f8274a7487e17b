-- Groups of channels that somebody put together to begin plans with; those of a region ship with Veridon.
CREATE TABLE "starter_sets" (
  "id" text PRIMARY KEY,
  "name" text NOT NULL,
  "channels" jsonb NOT NULL,
  "at" timestamp with time zone NOT NULL DEFAULT now()
);
