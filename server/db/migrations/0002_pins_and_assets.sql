CREATE TABLE "assets" (
	"sha256" text PRIMARY KEY NOT NULL,
	"media_type" text NOT NULL,
	"width" integer,
	"height" integer,
	"pages" integer,
	"bytes" "bytea" NOT NULL
);
--> statement-breakpoint
CREATE TABLE "clauses" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"body" jsonb NOT NULL
);
--> statement-breakpoint
ALTER TABLE "template_versions" ADD COLUMN "pins" jsonb;--> statement-breakpoint
-- House styles had neither stationery nor a table style of their own: these are what their documents were set in.
UPDATE "template_versions" SET "pins" = jsonb_build_object('clauses', '[]'::jsonb, 'houseStyles', jsonb_build_array(
  '{"type": {"text": 9.5, "step": 1.3}, "table": "rules", "composition": "full", "margins": {"top": 22, "right": 20, "bottom": 24, "left": 20}, "letterhead": {"header": [], "footer": []}}'::jsonb
  || "house_style" || jsonb_build_object('colours', '{"tint": "#f2f5f1"}'::jsonb || ("house_style" -> 'colours'))));--> statement-breakpoint
ALTER TABLE "template_versions" ALTER COLUMN "pins" SET NOT NULL;