CREATE TABLE "access_rules" (
	"subject" text PRIMARY KEY NOT NULL,
	"see" text[] NOT NULL,
	"act" text[] NOT NULL
);
--> statement-breakpoint
CREATE TABLE "api_tokens" (
	"id" uuid PRIMARY KEY NOT NULL,
	"token_hash" text NOT NULL,
	"person_id" uuid NOT NULL,
	"name" text NOT NULL,
	"roles" text[] NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"last_used_at" timestamp with time zone,
	"withdrawn_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "connections" (
	"id" text PRIMARY KEY NOT NULL,
	"url" text NOT NULL,
	"client_id" text NOT NULL,
	"sealed_secret" text NOT NULL,
	"origin" text NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "guesses" (
	"key" text PRIMARY KEY NOT NULL,
	"points" integer DEFAULT 0 NOT NULL,
	"expire" bigint
);
--> statement-breakpoint
CREATE TABLE "invitations" (
	"id" uuid PRIMARY KEY NOT NULL,
	"token_hash" text NOT NULL,
	"person_id" uuid,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"roles" text[] NOT NULL,
	"invited_by" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"used_at" timestamp with time zone,
	"withdrawn_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "people" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"roles" text[] NOT NULL,
	"password_hash" text,
	"code_secret" text,
	"codes_since" timestamp with time zone,
	"last_code_step" integer,
	"recovery_codes" text[] DEFAULT '{}' NOT NULL,
	"is_demo" boolean DEFAULT false NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"withdrawn_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "sessions" (
	"id" uuid PRIMARY KEY NOT NULL,
	"token_hash" text NOT NULL,
	"person_id" uuid NOT NULL,
	"agent" text NOT NULL,
	"address" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"seen_at" timestamp with time zone DEFAULT now() NOT NULL,
	"ended_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "trail" (
	"id" uuid PRIMARY KEY NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"person_id" uuid,
	"person_name" text NOT NULL,
	"via" text NOT NULL,
	"act" text NOT NULL,
	"subject_kind" text NOT NULL,
	"subject_id" text NOT NULL,
	"subject_name" text NOT NULL,
	"sentence" text NOT NULL,
	"details" jsonb
);
--> statement-breakpoint
ALTER TABLE "events" ADD COLUMN "by" text;--> statement-breakpoint
ALTER TABLE "template_versions" ADD COLUMN "published_by" text;--> statement-breakpoint
ALTER TABLE "api_tokens" ADD CONSTRAINT "api_tokens_person_id_people_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "invitations" ADD CONSTRAINT "invitations_person_id_people_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_person_id_people_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "api_tokens_token" ON "api_tokens" USING btree ("token_hash");--> statement-breakpoint
CREATE INDEX "api_tokens_person" ON "api_tokens" USING btree ("person_id");--> statement-breakpoint
CREATE UNIQUE INDEX "invitations_token" ON "invitations" USING btree ("token_hash");--> statement-breakpoint
CREATE UNIQUE INDEX "people_email" ON "people" USING btree ("email");--> statement-breakpoint
CREATE UNIQUE INDEX "sessions_token" ON "sessions" USING btree ("token_hash");--> statement-breakpoint
CREATE INDEX "sessions_person" ON "sessions" USING btree ("person_id") WHERE "sessions"."ended_at" is null;--> statement-breakpoint
CREATE INDEX "trail_at" ON "trail" USING btree ("at");--> statement-breakpoint
CREATE INDEX "trail_subject" ON "trail" USING btree ("subject_kind","subject_id","at");--> statement-breakpoint
CREATE INDEX "trail_person" ON "trail" USING btree ("person_id","at");--> statement-breakpoint
CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'What is in % is only ever added to.', TG_TABLE_NAME;
END $$;--> statement-breakpoint
CREATE TRIGGER trail_is_added_to BEFORE UPDATE OR DELETE OR TRUNCATE ON "trail" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();--> statement-breakpoint
CREATE TRIGGER events_are_added_to BEFORE UPDATE OR DELETE OR TRUNCATE ON "events" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
