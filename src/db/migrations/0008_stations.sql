-- Stations as directories and files answered them, kept with the date, so that they are found without asking again.
CREATE TABLE "stations" (
  "source" text NOT NULL,
  "ref" text NOT NULL,
  "lat" double precision NOT NULL,
  "lon" double precision NOT NULL,
  "entry" jsonb NOT NULL,
  "asked_at" timestamp with time zone NOT NULL,
  "gone_at" timestamp with time zone,
  PRIMARY KEY ("source", "ref")
);
--> statement-breakpoint
CREATE INDEX "stations_place" ON "stations" ("lat", "lon");
--> statement-breakpoint
-- Names and passwords for directories that want them, sealed with a key that is not in here.
CREATE TABLE "accounts" (
  "source" text PRIMARY KEY,
  "sealed" bytea NOT NULL,
  "at" timestamp with time zone NOT NULL DEFAULT now()
);
