ALTER TABLE "revisions" ALTER COLUMN "source" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "revisions" ADD COLUMN "delta" text;--> statement-breakpoint
ALTER TABLE "revisions" ADD COLUMN "files" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "revisions" ADD CONSTRAINT "source_or_delta" CHECK (("revisions"."source" is null) <> ("revisions"."delta" is null));--> statement-breakpoint
UPDATE "revisions" SET "files" = ARRAY(SELECT DISTINCT (regexp_matches("source", '"([0-9a-f]{64})"', 'g'))[1]);
