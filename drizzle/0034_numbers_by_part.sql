DROP INDEX "document_number_words";--> statement-breakpoint
CREATE INDEX "document_number_words" ON "document" USING gin (upper(number) gin_trgm_ops);