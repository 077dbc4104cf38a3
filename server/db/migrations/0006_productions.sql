CREATE TABLE "productions" (
	"id" uuid PRIMARY KEY NOT NULL,
	"template_version_id" uuid NOT NULL,
	"record_source" text NOT NULL,
	"record_type" text NOT NULL,
	"record_id" text NOT NULL,
	"choices" jsonb NOT NULL,
	"issue_date" date NOT NULL,
	"snapshot" jsonb NOT NULL,
	"used" jsonb NOT NULL,
	"used_digest" text NOT NULL,
	"by_id" uuid,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "numbers" (
	"id" uuid PRIMARY KEY NOT NULL,
	"series_id" text NOT NULL,
	"period" text NOT NULL,
	"serial" integer NOT NULL,
	"text" text NOT NULL,
	"state" text NOT NULL,
	"taken_at" timestamp with time zone DEFAULT now() NOT NULL,
	"by" text
);
--> statement-breakpoint
CREATE TABLE "steps" (
	"document_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"kind" text NOT NULL,
	"state" text NOT NULL,
	"attempts" integer DEFAULT 0 NOT NULL,
	"tried_at" timestamp with time zone,
	"reason" text,
	"due_at" timestamp with time zone,
	"unclear_at" timestamp with time zone,
	"answer" jsonb,
	"done_at" timestamp with time zone,
	CONSTRAINT "steps_document_id_position_pk" PRIMARY KEY("document_id","position")
);
--> statement-breakpoint
CREATE TABLE "files" (
	"document_id" uuid NOT NULL,
	"format" text NOT NULL,
	"media_type" text NOT NULL,
	"sha256" text NOT NULL,
	"bytes" "bytea" NOT NULL,
	"attachment_id" text,
	CONSTRAINT "files_document_id_format_pk" PRIMARY KEY("document_id","format")
);
--> statement-breakpoint
-- What each document was made from becomes a production of its own, with the document's id.
INSERT INTO "productions" ("id", "template_version_id", "record_source", "record_type", "record_id", "choices", "issue_date", "snapshot", "used", "used_digest", "at")
SELECT "id", "template_version_id", 'crm', "record_type", "record_id",
	jsonb_build_object('plan', "plan", 'edition', "edition", 'skips', "skipped"), "issue_date", "snapshot", "used", "used_digest", "created_at"
FROM "documents";
--> statement-breakpoint
INSERT INTO "numbers" ("id", "series_id", "period", "serial", "text", "state", "taken_at", "by")
SELECT "id", "series_id", "period", "serial", "number", CASE WHEN "state" = 'failed' THEN 'void' ELSE 'taken' END, "created_at",
	(SELECT "by" FROM "events" WHERE "events"."document_id" = "documents"."id" AND "events"."kind" = 'number taken')
FROM "documents";
--> statement-breakpoint
INSERT INTO "files" ("document_id", "format", "media_type", "sha256", "bytes", "attachment_id")
SELECT "document_id", 'pdf', "media_type", "sha256", "bytes", "documents"."attachment_id"
FROM "document_files" JOIN "documents" ON "documents"."id" = "document_id";
--> statement-breakpoint
DROP TABLE "document_files";
--> statement-breakpoint
INSERT INTO "steps" ("document_id", "position", "kind", "state", "attempts", "answer", "tried_at", "done_at")
SELECT "id", 0, 'number', 'done', 1, jsonb_build_object('number', "number"), "created_at", "created_at" FROM "documents";
--> statement-breakpoint
INSERT INTO "steps" ("document_id", "position", "kind", "state", "attempts", "reason", "tried_at", "done_at")
SELECT "id", 1, 'render',
	CASE WHEN "rendered" IS NOT NULL THEN 'done' WHEN "state" = 'failed' THEN 'ended' ELSE 'open' END,
	CASE WHEN "rendered" IS NULL AND "state" = 'preparing' THEN 0 ELSE 1 END,
	CASE WHEN "rendered" IS NULL THEN "reason" END, "rendered", "rendered"
FROM "documents" LEFT JOIN LATERAL (
	SELECT max("at") AS "rendered" FROM "events" WHERE "events"."document_id" = "documents"."id" AND "events"."kind" = 'rendered'
) AS "history" ON true;
--> statement-breakpoint
INSERT INTO "steps" ("document_id", "position", "kind", "state", "attempts", "reason", "tried_at", "unclear_at", "answer", "done_at")
SELECT "id", 2, 'attach',
	CASE WHEN "state" = 'filed' THEN 'done' WHEN "state" = 'failed' AND "rendered" IS NOT NULL THEN 'ended' ELSE 'open' END,
	CASE WHEN "state" IN ('filed', 'attached') OR "rendered" IS NOT NULL THEN 1 ELSE 0 END,
	CASE WHEN "state" <> 'filed' AND "rendered" IS NOT NULL THEN "reason" END, "rendered",
	CASE WHEN "state" = 'rendered' THEN "rendered" END,
	CASE WHEN "attachment_id" IS NOT NULL THEN jsonb_build_object('attachment', "attachment_id") END, "filed_at"
FROM "documents" LEFT JOIN LATERAL (
	SELECT max("at") AS "rendered" FROM "events" WHERE "events"."document_id" = "documents"."id" AND "events"."kind" = 'rendered'
) AS "history" ON true;
--> statement-breakpoint
-- The last step of today does both; a document between them is taken through it again, which finds its file on the record.
UPDATE "documents" SET "state" = 'rendered' WHERE "state" = 'attached';
--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "production_id" uuid;--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "number_id" uuid;--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "by_id" uuid;--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "by" text;--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "key" text;--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "voiding" jsonb;--> statement-breakpoint
UPDATE "documents" SET "production_id" = "id", "number_id" = "id", "by" = (SELECT "by" FROM "numbers" WHERE "numbers"."id" = "documents"."id");
--> statement-breakpoint
ALTER TABLE "documents" ALTER COLUMN "production_id" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "documents" DROP COLUMN "series_id";--> statement-breakpoint
ALTER TABLE "documents" DROP COLUMN "period";--> statement-breakpoint
ALTER TABLE "documents" DROP COLUMN "serial";--> statement-breakpoint
ALTER TABLE "documents" DROP COLUMN "template_version_id";--> statement-breakpoint
ALTER TABLE "documents" DROP COLUMN "edition";--> statement-breakpoint
ALTER TABLE "documents" DROP COLUMN "plan";--> statement-breakpoint
ALTER TABLE "documents" DROP COLUMN "snapshot";--> statement-breakpoint
ALTER TABLE "documents" DROP COLUMN "used";--> statement-breakpoint
ALTER TABLE "documents" DROP COLUMN "used_digest";--> statement-breakpoint
ALTER TABLE "documents" DROP COLUMN "skipped";--> statement-breakpoint
ALTER TABLE "documents" DROP COLUMN "attachment_id";--> statement-breakpoint
ALTER TABLE "documents" DROP COLUMN "reason";--> statement-breakpoint
DROP INDEX IF EXISTS "documents_unfinished";--> statement-breakpoint
ALTER TABLE "events" RENAME COLUMN "document_id" TO "subject_id";--> statement-breakpoint
ALTER TABLE "events" ALTER COLUMN "subject_id" TYPE text;--> statement-breakpoint
ALTER TABLE "events" ADD COLUMN "subject_kind" text DEFAULT 'document' NOT NULL;--> statement-breakpoint
ALTER TABLE "events" ALTER COLUMN "subject_kind" DROP DEFAULT;--> statement-breakpoint
DROP INDEX "events_document";--> statement-breakpoint
CREATE INDEX "events_subject" ON "events" USING btree ("subject_kind","subject_id","at");--> statement-breakpoint
ALTER TABLE "documents" ADD CONSTRAINT "documents_production_id_productions_id_fk" FOREIGN KEY ("production_id") REFERENCES "public"."productions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "documents" ADD CONSTRAINT "documents_number_id_numbers_id_fk" FOREIGN KEY ("number_id") REFERENCES "public"."numbers"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "steps" ADD CONSTRAINT "steps_document_id_documents_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."documents"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "files" ADD CONSTRAINT "files_document_id_documents_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."documents"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "productions_at" ON "productions" USING btree ("at");--> statement-breakpoint
CREATE UNIQUE INDEX "numbers_serial" ON "numbers" USING btree ("series_id","period","serial");--> statement-breakpoint
CREATE INDEX "steps_open" ON "steps" USING btree ("document_id") WHERE "steps"."state" = 'open';--> statement-breakpoint
CREATE UNIQUE INDEX "documents_production" ON "documents" USING btree ("production_id");--> statement-breakpoint
CREATE UNIQUE INDEX "documents_key" ON "documents" USING btree ("by_id","key");--> statement-breakpoint
CREATE UNIQUE INDEX "documents_number" ON "documents" USING btree ("number_id");
