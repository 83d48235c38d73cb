CREATE TABLE "artworks" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workspace_id" text NOT NULL,
	"title" text NOT NULL,
	"original" text NOT NULL,
	"picture" text NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"vector" boolean NOT NULL,
	"colours" jsonb NOT NULL,
	"white_ground" boolean NOT NULL,
	"notes" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
