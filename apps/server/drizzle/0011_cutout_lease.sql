ALTER TABLE "photos" ADD COLUMN "cutout_lease" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "photos" ADD COLUMN "cutout_tries" integer DEFAULT 0 NOT NULL;