CREATE TABLE "render_checks" (
	"render_id" uuid NOT NULL,
	"index" integer NOT NULL,
	"state" text DEFAULT 'waiting' NOT NULL,
	"lease" uuid,
	"lease_until" timestamp with time zone,
	"worker" text,
	"tries" integer DEFAULT 0 NOT NULL,
	CONSTRAINT "render_checks_render_id_index_pk" PRIMARY KEY("render_id","index")
);
--> statement-breakpoint
ALTER TABLE "render_checks" ADD CONSTRAINT "render_checks_render_id_renders_id_fk" FOREIGN KEY ("render_id") REFERENCES "public"."renders"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "render_checks_next" ON "render_checks" USING btree ("state");