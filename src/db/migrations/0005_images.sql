-- The image file of which a plan was opened: what is not ours in it is saved again with it.
CREATE TABLE "images" (
  "plan_id" text PRIMARY KEY REFERENCES "plans"("id"),
  "model_id" text NOT NULL,
  "image" bytea NOT NULL,
  "at" timestamp with time zone NOT NULL DEFAULT now()
);
