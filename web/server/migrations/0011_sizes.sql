ALTER TABLE "pieces" ADD COLUMN "width" integer;--> statement-breakpoint
ALTER TABLE "pieces" ADD COLUMN "height" integer;