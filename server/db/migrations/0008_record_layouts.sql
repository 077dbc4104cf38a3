CREATE TABLE "record_layouts" (
	"source" text NOT NULL,
	"type" text NOT NULL,
	"layout" jsonb NOT NULL,
	"origin" text NOT NULL,
	"changed_at" timestamp with time zone NOT NULL,
	CONSTRAINT "record_layouts_source_type_pk" PRIMARY KEY("source","type")
);
--> statement-breakpoint
CREATE TABLE "record_schemas" (
	"source" text PRIMARY KEY NOT NULL,
	"schema" jsonb NOT NULL,
	"read_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "record_readings" DROP COLUMN "whole_at";