CREATE TABLE "open_pages" (
	"piece_id" uuid NOT NULL,
	"client" uuid NOT NULL,
	"browser" uuid NOT NULL,
	"person" text NOT NULL,
	"name" text NOT NULL,
	"seen_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "open_pages_piece_id_client_pk" PRIMARY KEY("piece_id","client")
);
--> statement-breakpoint
ALTER TABLE "revisions" ADD COLUMN "client" uuid;--> statement-breakpoint
ALTER TABLE "revisions" ADD COLUMN "count" integer;--> statement-breakpoint
ALTER TABLE "revisions" ADD COLUMN "made_by" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "open_pages" ADD CONSTRAINT "open_pages_piece_id_pieces_id_fk" FOREIGN KEY ("piece_id") REFERENCES "public"."pieces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "revision_client" ON "revisions" USING btree ("piece_id","client");