CREATE TABLE "workers" (
	"id" uuid PRIMARY KEY NOT NULL,
	"host" text NOT NULL,
	"threads" integer NOT NULL,
	"started_at" timestamp with time zone DEFAULT now() NOT NULL,
	"seen_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "photos" ADD COLUMN "cutout_claim" uuid;--> statement-breakpoint
ALTER TABLE "recipe_results" ADD COLUMN "worker" uuid;--> statement-breakpoint
ALTER TABLE "recipe_results" ADD COLUMN "lease_until" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "recipe_results" ADD COLUMN "tries" integer DEFAULT 0 NOT NULL;