ALTER TABLE "delivery_pictures" ADD COLUMN "slot_part" text DEFAULT '' NOT NULL;
--> statement-breakpoint
UPDATE "delivery_pictures" c SET "slot_part" = p."slot_part" FROM "paintings" p WHERE p."key" = c."key";
