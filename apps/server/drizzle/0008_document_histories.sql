ALTER TABLE "brand_kits" ADD COLUMN "history" jsonb DEFAULT '{"past":[],"future":[]}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "recipes" ADD COLUMN "history" jsonb DEFAULT '{"past":[],"future":[]}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "scenes" ADD COLUMN "history" jsonb DEFAULT '{"past":[],"future":[]}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "scenes" ADD COLUMN "revision" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
UPDATE "brand_kits" b SET "history" = jsonb_build_object('future', '[]'::jsonb, 'past', (
  SELECT jsonb_agg(jsonb_build_object(
    'label', 'Change',
    'inverse', jsonb_build_array(jsonb_build_object('op', 'replace', 'path', '[]'::jsonb, 'value', e."kit")),
    'forward', jsonb_build_array(jsonb_build_object('op', 'replace', 'path', '[]'::jsonb, 'value', coalesce(b."past" -> (e."n")::int, b."kit")))
  ) ORDER BY e."n")
  FROM jsonb_array_elements(b."past") WITH ORDINALITY AS e("kit", "n")
)) WHERE jsonb_array_length(b."past") > 0;
