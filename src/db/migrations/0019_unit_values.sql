-- What the values of one unit were and are: its ID, its call sign, its greeting. The log only grows; its entries are numbered for each unit.
CREATE TABLE "unit_values" (
  "radio_id" text NOT NULL REFERENCES "radios" ("id"),
  "number" integer NOT NULL,
  "key" text NOT NULL,
  "value" jsonb,
  "at" timestamp with time zone NOT NULL DEFAULT now(),
  PRIMARY KEY ("radio_id", "number")
);
