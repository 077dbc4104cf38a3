DROP INDEX "documents_number";--> statement-breakpoint
DROP INDEX "documents_sums";--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "revises" uuid;--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "revision" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "superseded_by" uuid;--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "validity" text DEFAULT 'current' NOT NULL;--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "voided" jsonb;--> statement-breakpoint
ALTER TABLE "productions" ADD COLUMN "revises" jsonb;--> statement-breakpoint
CREATE UNIQUE INDEX "documents_number" ON "documents" USING btree ("number_id","revision");--> statement-breakpoint
CREATE INDEX "documents_sums" ON "documents" USING btree ("state","validity","kind","currency","amount");