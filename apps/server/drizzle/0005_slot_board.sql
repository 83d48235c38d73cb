CREATE TABLE "cell_feeds" (
	"listing_id" uuid NOT NULL,
	"variant_id" uuid NOT NULL,
	"slot_key" text NOT NULL,
	"shot_id" uuid,
	CONSTRAINT "cell_feeds_listing_id_variant_id_slot_key_pk" PRIMARY KEY("listing_id","variant_id","slot_key")
);
--> statement-breakpoint
CREATE TABLE "delivery_pictures" (
	"delivery_id" uuid NOT NULL,
	"n" integer NOT NULL,
	"key" text NOT NULL,
	"listing_id" uuid NOT NULL,
	"variant_id" uuid NOT NULL,
	"listing" text NOT NULL,
	"shot_title" text NOT NULL,
	"variant" text NOT NULL,
	"sku" text NOT NULL,
	"marketplace" text NOT NULL,
	"slot_key" text NOT NULL,
	"file_name" text NOT NULL,
	CONSTRAINT "delivery_pictures_delivery_id_n_pk" PRIMARY KEY("delivery_id","n")
);
--> statement-breakpoint
CREATE TABLE "edits" (
	"n" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "edits_n_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"scope" text NOT NULL,
	"label" text NOT NULL,
	"before" jsonb NOT NULL,
	"after" jsonb NOT NULL,
	"undone" boolean DEFAULT false NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "made_cells" (
	"listing_id" uuid NOT NULL,
	"variant_id" uuid NOT NULL,
	"slot_key" text NOT NULL,
	"key" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "made_cells_listing_id_variant_id_slot_key_pk" PRIMARY KEY("listing_id","variant_id","slot_key")
);
--> statement-breakpoint
CREATE TABLE "order_parts" (
	"hash" text PRIMARY KEY NOT NULL,
	"body" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "paintings" (
	"key" text PRIMARY KEY NOT NULL,
	"shot_part" text NOT NULL,
	"slot_part" text NOT NULL,
	"data_part" text NOT NULL,
	"brand_part" text NOT NULL,
	"slot_key" text NOT NULL,
	"encoding" jsonb NOT NULL,
	"words" jsonb NOT NULL,
	"state" text DEFAULT 'waiting' NOT NULL,
	"worker" uuid,
	"lease_until" timestamp with time zone,
	"attempts" integer DEFAULT 0 NOT NULL,
	"reason" text,
	"blob" text,
	"format" text,
	"quality" integer,
	"bytes" integer,
	"width" integer,
	"height" integer,
	"facts" jsonb,
	"measures" jsonb,
	"pictures" jsonb,
	"milliseconds" integer,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"finished_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "recipe_results" (
	"recipe_id" uuid NOT NULL,
	"product_id" uuid NOT NULL,
	"step" text NOT NULL,
	"state" text NOT NULL,
	"key" text,
	"made" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"says" text,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "recipe_results_recipe_id_product_id_step_pk" PRIMARY KEY("recipe_id","product_id","step")
);
--> statement-breakpoint
CREATE TABLE "recipes" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workspace_id" text NOT NULL,
	"title" text NOT NULL,
	"steps" jsonb NOT NULL,
	"revision" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "spec_sheet_versions" (
	"workspace_id" text NOT NULL,
	"id" text NOT NULL,
	"version" integer NOT NULL,
	"sheet" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "spec_sheet_versions_workspace_id_id_version_pk" PRIMARY KEY("workspace_id","id","version")
);
--> statement-breakpoint
CREATE TABLE "uploads" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"delivery_id" uuid NOT NULL,
	"marketplace" text NOT NULL,
	"answers" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "waivers" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"listing_id" uuid NOT NULL,
	"variant_id" uuid,
	"slot_key" text NOT NULL,
	"check" text NOT NULL,
	"reason" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "deliveries" ADD COLUMN "priority" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "listings" ADD COLUMN "encodings" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "shots" ADD COLUMN "alt" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "shots" ADD COLUMN "made_by" text;--> statement-breakpoint
ALTER TABLE "variants" ADD COLUMN "artwork_id" uuid;--> statement-breakpoint
ALTER TABLE "variants" ADD COLUMN "ink" text;--> statement-breakpoint
ALTER TABLE "cell_feeds" ADD CONSTRAINT "cell_feeds_listing_id_listings_id_fk" FOREIGN KEY ("listing_id") REFERENCES "public"."listings"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cell_feeds" ADD CONSTRAINT "cell_feeds_variant_id_variants_id_fk" FOREIGN KEY ("variant_id") REFERENCES "public"."variants"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cell_feeds" ADD CONSTRAINT "cell_feeds_shot_id_shots_id_fk" FOREIGN KEY ("shot_id") REFERENCES "public"."shots"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "delivery_pictures" ADD CONSTRAINT "delivery_pictures_delivery_id_deliveries_id_fk" FOREIGN KEY ("delivery_id") REFERENCES "public"."deliveries"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "delivery_pictures" ADD CONSTRAINT "delivery_pictures_key_paintings_key_fk" FOREIGN KEY ("key") REFERENCES "public"."paintings"("key") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "made_cells" ADD CONSTRAINT "made_cells_listing_id_listings_id_fk" FOREIGN KEY ("listing_id") REFERENCES "public"."listings"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "made_cells" ADD CONSTRAINT "made_cells_key_paintings_key_fk" FOREIGN KEY ("key") REFERENCES "public"."paintings"("key") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "paintings" ADD CONSTRAINT "paintings_blob_blobs_hash_fk" FOREIGN KEY ("blob") REFERENCES "public"."blobs"("hash") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recipe_results" ADD CONSTRAINT "recipe_results_recipe_id_recipes_id_fk" FOREIGN KEY ("recipe_id") REFERENCES "public"."recipes"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recipe_results" ADD CONSTRAINT "recipe_results_product_id_products_id_fk" FOREIGN KEY ("product_id") REFERENCES "public"."products"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "uploads" ADD CONSTRAINT "uploads_delivery_id_deliveries_id_fk" FOREIGN KEY ("delivery_id") REFERENCES "public"."deliveries"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "waivers" ADD CONSTRAINT "waivers_listing_id_listings_id_fk" FOREIGN KEY ("listing_id") REFERENCES "public"."listings"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "waivers" ADD CONSTRAINT "waivers_variant_id_variants_id_fk" FOREIGN KEY ("variant_id") REFERENCES "public"."variants"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "delivery_pictures_key" ON "delivery_pictures" USING btree ("key");--> statement-breakpoint
CREATE INDEX "edits_scope" ON "edits" USING btree ("scope","n");--> statement-breakpoint
CREATE INDEX "paintings_open" ON "paintings" USING btree ("state") WHERE state in ('waiting', 'working');--> statement-breakpoint
CREATE INDEX "uploads_delivery" ON "uploads" USING btree ("delivery_id");--> statement-breakpoint
CREATE INDEX "waivers_listing" ON "waivers" USING btree ("listing_id");--> statement-breakpoint
ALTER TABLE "variants" ADD CONSTRAINT "variants_artwork_id_artworks_id_fk" FOREIGN KEY ("artwork_id") REFERENCES "public"."artworks"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
INSERT INTO "spec_sheet_versions" ("workspace_id", "id", "version", "sheet")
SELECT "workspace_id", "id", ("sheet"->>'version')::int, "sheet" FROM "spec_sheets";
--> statement-breakpoint
INSERT INTO "paintings" ("key", "shot_part", "slot_part", "data_part", "brand_part", "slot_key", "encoding", "words", "state", "reason", "blob", "format", "quality", "bytes", "width", "height", "finished_at")
SELECT 'earlier-' || "id", '', '', '', '', "slot_key", '{"format":null,"quality":null,"chroma":null,"progressive":false,"lossless":false,"colours":null}', '{"alt":null,"copyright":null,"title":null}',
  CASE WHEN "state" = 'done' THEN 'done' ELSE 'failed' END, coalesce("reason", 'It was not made.'), "blob", "format", "quality", "bytes", ("order"->'slot'->>'width')::int, ("order"->'slot'->>'height')::int, now()
FROM "delivery_cells";
--> statement-breakpoint
INSERT INTO "delivery_pictures" ("delivery_id", "n", "key", "listing_id", "variant_id", "listing", "shot_title", "variant", "sku", "marketplace", "slot_key", "file_name")
SELECT c."delivery_id", c."n", 'earlier-' || c."id", d."listing_id", '00000000-0000-0000-0000-000000000000', d."title", c."shot_title", c."variant", c."sku", c."marketplace", c."slot_key", c."file_name"
FROM "delivery_cells" c JOIN "deliveries" d ON d."id" = c."delivery_id";
--> statement-breakpoint
UPDATE "deliveries" SET "state" = 'cancelled' WHERE "state" IN ('queued', 'running');
