CREATE TABLE "pieces" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"head" integer NOT NULL,
	"frames" integer,
	"fps" double precision,
	"gaps" integer,
	"trouble" text,
	"thumbnail" "bytea",
	"thumbnail_revision" integer,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "revisions" (
	"id" bigserial PRIMARY KEY NOT NULL,
	"piece_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"based_on" integer,
	"aside" boolean DEFAULT false NOT NULL,
	"source" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "revision_number" UNIQUE("piece_id","number")
);
--> statement-breakpoint
ALTER TABLE "revisions" ADD CONSTRAINT "revisions_piece_id_pieces_id_fk" FOREIGN KEY ("piece_id") REFERENCES "public"."pieces"("id") ON DELETE cascade ON UPDATE no action;