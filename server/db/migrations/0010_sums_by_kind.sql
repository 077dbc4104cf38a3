DROP INDEX "documents_sums";--> statement-breakpoint
CREATE INDEX "documents_sums" ON "documents" USING btree ("state","kind","currency","amount");