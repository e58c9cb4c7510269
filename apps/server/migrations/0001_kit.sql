CREATE TABLE "kit_items" (
	"id" uuid PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"revision" integer NOT NULL,
	"document" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"archived_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "kit_revisions" (
	"item_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"document" jsonb NOT NULL,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL,
	"import_id" uuid,
	CONSTRAINT "kit_revisions_item_id_revision_pk" PRIMARY KEY("item_id","revision")
);
--> statement-breakpoint
CREATE TABLE "rigs" (
	"id" uuid PRIMARY KEY NOT NULL,
	"revision" integer NOT NULL,
	"document" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"archived_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "kit_revisions" ADD CONSTRAINT "kit_revisions_item_id_kit_items_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."kit_items"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "kit_items_by_kind" ON "kit_items" USING btree ("kind");--> statement-breakpoint
CREATE INDEX "kit_revisions_by_import" ON "kit_revisions" USING btree ("import_id");