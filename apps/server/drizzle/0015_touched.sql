ALTER TABLE "blobs" ADD COLUMN "touched_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "derived" ADD COLUMN "created_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "order_parts" ADD COLUMN "touched_at" timestamp with time zone DEFAULT now() NOT NULL;