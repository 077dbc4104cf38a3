CREATE TABLE "document_files" (
	"document_id" uuid PRIMARY KEY NOT NULL,
	"media_type" text NOT NULL,
	"sha256" text NOT NULL,
	"bytes" "bytea" NOT NULL
);
--> statement-breakpoint
CREATE TABLE "documents" (
	"id" uuid PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"state" text NOT NULL,
	"number" text NOT NULL,
	"series_id" text NOT NULL,
	"period" text NOT NULL,
	"serial" integer NOT NULL,
	"record_type" text NOT NULL,
	"record_id" text NOT NULL,
	"record_name" text NOT NULL,
	"account_name" text NOT NULL,
	"title" text NOT NULL,
	"file_name" text NOT NULL,
	"template_id" text NOT NULL,
	"template_version_id" uuid NOT NULL,
	"edition" text NOT NULL,
	"plan" text NOT NULL,
	"amount" numeric,
	"currency" text,
	"issue_date" date NOT NULL,
	"snapshot" jsonb NOT NULL,
	"used" jsonb NOT NULL,
	"used_digest" text NOT NULL,
	"skipped" jsonb NOT NULL,
	"composition" jsonb,
	"attachment_id" text,
	"reason" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"filed_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "events" (
	"id" uuid PRIMARY KEY NOT NULL,
	"document_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"sentence" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "house_styles" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"body" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "series" (
	"id" text PRIMARY KEY NOT NULL,
	"label" text NOT NULL,
	"formula" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "series_counters" (
	"series_id" text NOT NULL,
	"period" text NOT NULL,
	"next" integer NOT NULL,
	CONSTRAINT "series_counters_series_id_period_pk" PRIMARY KEY("series_id","period")
);
--> statement-breakpoint
CREATE TABLE "template_versions" (
	"id" uuid PRIMARY KEY NOT NULL,
	"template_id" text NOT NULL,
	"version" integer NOT NULL,
	"body" jsonb NOT NULL,
	"house_style" jsonb NOT NULL,
	"published_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "templates" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"record_type" text NOT NULL,
	"current_version" uuid NOT NULL
);
--> statement-breakpoint
ALTER TABLE "document_files" ADD CONSTRAINT "document_files_document_id_documents_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."documents"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "documents_number" ON "documents" USING btree ("series_id","period","serial");--> statement-breakpoint
CREATE INDEX "documents_record" ON "documents" USING btree ("record_id","kind","created_at");--> statement-breakpoint
CREATE INDEX "documents_created" ON "documents" USING btree ("created_at");--> statement-breakpoint
CREATE INDEX "documents_unfinished" ON "documents" USING btree ("state") WHERE "documents"."state" in ('preparing', 'rendered', 'attached');--> statement-breakpoint
CREATE INDEX "events_document" ON "events" USING btree ("document_id","at");--> statement-breakpoint
CREATE UNIQUE INDEX "template_versions_number" ON "template_versions" USING btree ("template_id","version");