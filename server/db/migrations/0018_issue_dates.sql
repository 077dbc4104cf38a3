ALTER TABLE "series" ADD COLUMN "backdated_days" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "series_counters" ADD COLUMN "last_issued" date;--> statement-breakpoint
UPDATE "series" SET "backdated_days" = CASE WHEN "id" IN ('quote', 'proposal', 'order', 'agreement', 'letter') THEN 14 WHEN "id" IN ('delivery', 'invoice', 'credit', 'receipt') THEN 7 ELSE 0 END;--> statement-breakpoint
UPDATE "series_counters" SET "last_issued" = (
  SELECT max("documents"."issue_date") FROM "documents" JOIN "numbers" ON "numbers"."id" = "documents"."number_id"
  WHERE "numbers"."series_id" = "series_counters"."series_id" AND "numbers"."period" = "series_counters"."period");
