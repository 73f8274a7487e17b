-- One table for all secrets. Accounts of directories were encrypted under the name of the directory; the key is the same.
ALTER TABLE "accounts" RENAME TO "secrets";
--> statement-breakpoint
ALTER TABLE "secrets" RENAME COLUMN "source" TO "id";
--> statement-breakpoint
ALTER TABLE "secrets" RENAME COLUMN "sealed" TO "encrypted";
--> statement-breakpoint
ALTER INDEX "accounts_pkey" RENAME TO "secrets_pkey";
--> statement-breakpoint
UPDATE "secrets" SET "id" = 'directory/' || "id";
