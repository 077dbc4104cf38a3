DROP INDEX "record_index_quoted";--> statement-breakpoint
DROP INDEX "documents_words";--> statement-breakpoint
DROP INDEX "record_index_words";--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "words" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "record_index" ADD COLUMN "words" text DEFAULT '' NOT NULL;--> statement-breakpoint
CREATE INDEX "record_index_counts" ON "record_index" USING btree ("source","type","is_quoted","stage","owner");--> statement-breakpoint
CREATE INDEX "documents_words" ON "documents" USING gin ("words" gin_trgm_ops);--> statement-breakpoint
CREATE INDEX "record_index_words" ON "record_index" USING gin ("words" gin_trgm_ops);--> statement-breakpoint
-- Records are read anew, to be found by their words.
UPDATE "record_readings" SET "link" = NULL, "reading" = "reading" + 1;
