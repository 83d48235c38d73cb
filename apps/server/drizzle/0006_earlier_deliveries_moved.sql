ALTER TABLE "delivery_cells" DISABLE ROW LEVEL SECURITY;--> statement-breakpoint
DROP TABLE "delivery_cells" CASCADE;--> statement-breakpoint
ALTER TABLE "deliveries" DROP CONSTRAINT "deliveries_zip_blobs_hash_fk";
--> statement-breakpoint
ALTER TABLE "deliveries" DROP COLUMN "cancel_asked";--> statement-breakpoint
ALTER TABLE "deliveries" DROP COLUMN "zip";--> statement-breakpoint
ALTER TABLE "deliveries" DROP COLUMN "zip_bytes";