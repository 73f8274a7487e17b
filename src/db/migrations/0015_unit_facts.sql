-- How a radio was made, as its memory tells: where it sends, and what it was bought without.
ALTER TABLE "radios" ADD COLUMN "facts" jsonb;
