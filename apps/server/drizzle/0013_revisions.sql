-- Steps kept whole cannot be taken back piece by piece: they are given up.
DELETE FROM "edits";--> statement-breakpoint
CREATE TABLE "scope_changes" (
	"scope" text NOT NULL,
	"revision" integer NOT NULL,
	"label" text NOT NULL,
	"keys" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "scope_changes_scope_revision_pk" PRIMARY KEY("scope","revision")
);
--> statement-breakpoint
CREATE TABLE "scopes" (
	"scope" text PRIMARY KEY NOT NULL,
	"revision" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
ALTER TABLE "deliveries" DROP CONSTRAINT "deliveries_listing_id_listings_id_fk";
--> statement-breakpoint
ALTER TABLE "deliveries" ALTER COLUMN "listing_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "deliveries" ADD COLUMN "revision" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "scope_changes" ADD CONSTRAINT "scope_changes_scope_scopes_scope_fk" FOREIGN KEY ("scope") REFERENCES "public"."scopes"("scope") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "deliveries" ADD CONSTRAINT "deliveries_listing_id_listings_id_fk" FOREIGN KEY ("listing_id") REFERENCES "public"."listings"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "edits" ADD CONSTRAINT "edits_scope_scopes_scope_fk" FOREIGN KEY ("scope") REFERENCES "public"."scopes"("scope") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "edits" DROP COLUMN "before";--> statement-breakpoint
ALTER TABLE "edits" DROP COLUMN "after";