-- Whatever is written touches the files that it names, in the order of their hashes, so that none of them is collected.
CREATE FUNCTION touch_named_blobs() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  UPDATE blobs SET touched_at = now() WHERE hash IN (
    SELECT hash FROM blobs WHERE touched_at < now() - interval '1 hour' AND hash IN (
      SELECT m[1] FROM regexp_matches(to_jsonb(NEW)::text, '[0-9a-f]{64}', 'g') m)
    ORDER BY hash FOR UPDATE);
  RETURN NULL;
END $$;
--> statement-breakpoint
DO $$
DECLARE name text;
BEGIN
  FOREACH name IN ARRAY ARRAY['photos', 'outlines', 'pictures', 'artworks', 'scenes', 'fonts', 'brand_kits', 'templates',
    'effect_settings', 'recipes', 'shots', 'edits', 'paintings', 'order_parts', 'derived', 'bin']
  LOOP
    EXECUTE format('CREATE TRIGGER touch_named_blobs AFTER INSERT OR UPDATE ON %I FOR EACH ROW EXECUTE FUNCTION touch_named_blobs()', name);
  END LOOP;
END $$;
