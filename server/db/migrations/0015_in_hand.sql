ALTER TABLE "productions" ADD COLUMN "revision" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "productions" ADD COLUMN "in_hand" boolean DEFAULT false NOT NULL;--> statement-breakpoint
CREATE INDEX "productions_in_hand" ON "productions" USING btree ("record_type","record_id") WHERE "productions"."in_hand";