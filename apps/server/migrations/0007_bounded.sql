CREATE TABLE "settings" (
	"id" integer PRIMARY KEY DEFAULT 1 NOT NULL,
	"thins_saves" boolean DEFAULT false NOT NULL,
	"saves_kept_whole" integer DEFAULT 200 NOT NULL
);
--> statement-breakpoint
ALTER TABLE "stations" ADD COLUMN "digest" jsonb;--> statement-breakpoint
ALTER TABLE "stations" ADD COLUMN "digest_of" integer;--> statement-breakpoint
-- What a list shows of a station is kept beside it; keeping it anew is no news to anybody.
DROP TRIGGER stations_told ON "stations";--> statement-breakpoint
CREATE TRIGGER stations_told
	AFTER INSERT OR DELETE OR UPDATE OF "revision", "document", "archived_at", "position", "status" ON "stations"
	FOR EACH ROW EXECUTE FUNCTION gangway_tell();
