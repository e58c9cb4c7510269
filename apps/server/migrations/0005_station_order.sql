DROP INDEX "stations_by_job";--> statement-breakpoint
ALTER TABLE "stations" ADD COLUMN "position" double precision;--> statement-breakpoint
ALTER TABLE "stations" ADD COLUMN "status" text DEFAULT 'planned' NOT NULL;--> statement-breakpoint
-- What is there stays in the order it was made.
UPDATE "stations" SET "position" = "made"."at" FROM (
	SELECT "id", row_number() OVER (PARTITION BY "job_id" ORDER BY "created_at", "id") AS "at" FROM "stations"
) AS "made" WHERE "stations"."id" = "made"."id";--> statement-breakpoint
ALTER TABLE "stations" ALTER COLUMN "position" SET NOT NULL;--> statement-breakpoint
CREATE INDEX "stations_by_job" ON "stations" USING btree ("job_id","position");
