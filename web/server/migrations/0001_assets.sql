CREATE TABLE "assets" (
	"fingerprint" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"bytes" "bytea" NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
