CREATE EXTENSION IF NOT EXISTS pg_trgm;--> statement-breakpoint
CREATE TABLE "record_index" (
	"source" text NOT NULL,
	"type" text NOT NULL,
	"id" text NOT NULL,
	"name" text NOT NULL,
	"number" text NOT NULL,
	"account" text NOT NULL,
	"stage" text NOT NULL,
	"owner" text NOT NULL,
	"amount" numeric,
	"currency" text,
	"day" date,
	"is_quoted" boolean DEFAULT false NOT NULL,
	"reading" integer NOT NULL,
	CONSTRAINT "record_index_source_type_id_pk" PRIMARY KEY("source","type","id")
);
--> statement-breakpoint
CREATE TABLE "record_readings" (
	"source" text NOT NULL,
	"type" text NOT NULL,
	"reading" integer NOT NULL,
	"link" text,
	"whole_at" timestamp with time zone,
	"known_at" timestamp with time zone,
	CONSTRAINT "record_readings_source_type_pk" PRIMARY KEY("source","type")
);
--> statement-breakpoint
DROP INDEX "documents_created";--> statement-breakpoint
CREATE INDEX "record_index_name" ON "record_index" USING btree ("type","name","id");--> statement-breakpoint
CREATE INDEX "record_index_account" ON "record_index" USING btree ("type","account","id");--> statement-breakpoint
CREATE INDEX "record_index_stage" ON "record_index" USING btree ("type","stage","id");--> statement-breakpoint
CREATE INDEX "record_index_amount" ON "record_index" USING btree ("type","amount" DESC NULLS LAST,"id" DESC NULLS LAST);--> statement-breakpoint
CREATE INDEX "record_index_day" ON "record_index" USING btree ("type","day" DESC NULLS LAST,"id" DESC NULLS LAST);--> statement-breakpoint
CREATE INDEX "record_index_owner" ON "record_index" USING btree ("type","owner");--> statement-breakpoint
CREATE INDEX "record_index_quoted" ON "record_index" USING btree ("type","is_quoted","stage");--> statement-breakpoint
CREATE INDEX "record_index_words" ON "record_index" USING gin (("name" || ' ' || "number" || ' ' || "account") gin_trgm_ops);--> statement-breakpoint
CREATE INDEX "documents_by_number" ON "documents" USING btree ("number","id");--> statement-breakpoint
CREATE INDEX "documents_by_record" ON "documents" USING btree ("record_name","id");--> statement-breakpoint
CREATE INDEX "documents_by_account" ON "documents" USING btree ("account_name","id");--> statement-breakpoint
CREATE INDEX "documents_by_amount" ON "documents" USING btree ("amount" DESC NULLS LAST,"id" DESC NULLS LAST);--> statement-breakpoint
CREATE INDEX "documents_state" ON "documents" USING btree ("state","created_at");--> statement-breakpoint
CREATE INDEX "documents_template" ON "documents" USING btree ("template_id","state","filed_at");--> statement-breakpoint
CREATE INDEX "documents_sums" ON "documents" USING btree ("state","currency","amount");--> statement-breakpoint
CREATE INDEX "documents_words" ON "documents" USING gin (("number" || ' ' || "title" || ' ' || "account_name" || ' ' || "record_name") gin_trgm_ops);--> statement-breakpoint
CREATE INDEX "documents_created" ON "documents" USING btree ("created_at","id");