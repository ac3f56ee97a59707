CREATE TABLE "render_files" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"render_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"item" jsonb NOT NULL,
	"base" text NOT NULL,
	"size" jsonb NOT NULL,
	"state" text DEFAULT 'waiting' NOT NULL,
	"lease" uuid,
	"lease_until" timestamp with time zone,
	"tries" integer DEFAULT 0 NOT NULL,
	"share" double precision DEFAULT 0 NOT NULL,
	"files" jsonb,
	"bytes" bigint,
	"report" jsonb,
	"message" text
);
--> statement-breakpoint
CREATE TABLE "render_parts" (
	"render_id" uuid NOT NULL,
	"index" integer NOT NULL,
	"rank" integer NOT NULL,
	"fingerprint" text NOT NULL,
	"state" text DEFAULT 'waiting' NOT NULL,
	"lease" uuid,
	"lease_until" timestamp with time zone,
	"worker" text,
	"tries" integer DEFAULT 0 NOT NULL,
	"seconds" double precision,
	"memory" integer,
	"taken_over" boolean DEFAULT false NOT NULL,
	"message" text,
	"done_at" timestamp with time zone,
	CONSTRAINT "render_parts_render_id_index_pk" PRIMARY KEY("render_id","index")
);
--> statement-breakpoint
CREATE TABLE "render_sheets" (
	"fingerprint" text PRIMARY KEY NOT NULL,
	"sheets" jsonb NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "render_workers" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"light" text NOT NULL,
	"threads" integer NOT NULL,
	"maker" text NOT NULL,
	"by" text NOT NULL,
	"seen_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "renders" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"piece_id" uuid,
	"name" text NOT NULL,
	"revision" integer NOT NULL,
	"source" text NOT NULL,
	"frames" integer[] NOT NULL,
	"loop_frames" integer NOT NULL,
	"fps" double precision NOT NULL,
	"frame_order" jsonb NOT NULL,
	"sheets" jsonb NOT NULL,
	"pattern" text NOT NULL,
	"light" text NOT NULL,
	"maker" text NOT NULL,
	"state" text DEFAULT 'frames' NOT NULL,
	"paused" boolean DEFAULT false NOT NULL,
	"estimate" boolean DEFAULT false NOT NULL,
	"priority" integer DEFAULT 0 NOT NULL,
	"place" double precision NOT NULL,
	"message" text,
	"made_by" text DEFAULT '' NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"finished_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "render_files" ADD CONSTRAINT "render_files_render_id_renders_id_fk" FOREIGN KEY ("render_id") REFERENCES "public"."renders"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "render_parts" ADD CONSTRAINT "render_parts_render_id_renders_id_fk" FOREIGN KEY ("render_id") REFERENCES "public"."renders"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "renders" ADD CONSTRAINT "renders_piece_id_pieces_id_fk" FOREIGN KEY ("piece_id") REFERENCES "public"."pieces"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "render_files_of" ON "render_files" USING btree ("render_id","position");--> statement-breakpoint
CREATE INDEX "render_parts_next" ON "render_parts" USING btree ("render_id","state","rank");--> statement-breakpoint
CREATE INDEX "render_parts_fingerprint" ON "render_parts" USING btree ("fingerprint");--> statement-breakpoint
CREATE INDEX "render_parts_lease" ON "render_parts" USING btree ("state","lease_until");--> statement-breakpoint
CREATE INDEX "renders_open" ON "renders" USING btree ("state","priority","place");