ALTER TABLE "record_index" ADD COLUMN "awkward" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
CREATE INDEX "record_index_awkward" ON "record_index" USING btree ("type","awkward" DESC NULLS FIRST,"id" DESC NULLS FIRST);--> statement-breakpoint
-- Everything is read anew, so that every record has it.
UPDATE "record_readings" SET "link" = NULL, "reading" = "reading" + 1;
