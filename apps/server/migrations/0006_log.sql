CREATE TABLE "exposures" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"document" jsonb NOT NULL,
	"position" double precision NOT NULL,
	"seq" bigint NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "notes" text;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "films" jsonb;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "more" jsonb;--> statement-breakpoint
ALTER TABLE "exposures" ADD CONSTRAINT "exposures_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "exposures_by_job" ON "exposures" USING btree ("job_id","position");--> statement-breakpoint
CREATE INDEX "exposures_by_change" ON "exposures" USING btree ("job_id","seq");