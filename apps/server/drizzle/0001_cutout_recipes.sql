CREATE TABLE "outlines" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"photo_id" uuid NOT NULL,
	"title" text NOT NULL,
	"matte" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "photos" ADD COLUMN "recipe" jsonb;--> statement-breakpoint
ALTER TABLE "photos" ADD COLUMN "recipe_history" jsonb;--> statement-breakpoint
ALTER TABLE "photos" ADD COLUMN "recipe_revision" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "photos" ADD COLUMN "accepted" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "outlines" ADD CONSTRAINT "outlines_photo_id_photos_id_fk" FOREIGN KEY ("photo_id") REFERENCES "public"."photos"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "outlines" ADD CONSTRAINT "outlines_matte_blobs_hash_fk" FOREIGN KEY ("matte") REFERENCES "public"."blobs"("hash") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "outlines_photo" ON "outlines" USING btree ("photo_id");