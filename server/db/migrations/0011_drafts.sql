CREATE TABLE "template_drafts" (
	"template_id" text PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"revision" integer NOT NULL,
	"base" uuid,
	"edited_by_id" uuid NOT NULL,
	"edited_by" text NOT NULL,
	"edited_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "template_editors" (
	"template_id" text NOT NULL,
	"window" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"name" text NOT NULL,
	"since" timestamp with time zone DEFAULT now() NOT NULL,
	"seen_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "template_editors_template_id_window_pk" PRIMARY KEY("template_id","window")
);
--> statement-breakpoint
ALTER TABLE "template_versions" ADD COLUMN "note" text;