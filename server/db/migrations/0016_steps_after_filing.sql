CREATE TABLE "places" (
	"id" text PRIMARY KEY NOT NULL,
	"label" text NOT NULL,
	"settings" jsonb NOT NULL,
	"sealed_secret" text,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
DROP INDEX "steps_open";--> statement-breakpoint
ALTER TABLE "steps" ADD COLUMN "plan_step" text;--> statement-breakpoint
ALTER TABLE "steps" ADD COLUMN "let_go" jsonb;--> statement-breakpoint
CREATE INDEX "steps_open" ON "steps" USING btree ("document_id") WHERE "steps"."state" in ('open', 'held');