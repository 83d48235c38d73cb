ALTER TABLE "edits" ADD COLUMN "revision" integer NOT NULL;--> statement-breakpoint
ALTER TABLE "edits" ADD COLUMN "editor" text;--> statement-breakpoint
ALTER TABLE "edits" ADD COLUMN "pieces" jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "scope_changes" ADD COLUMN "editor" text;