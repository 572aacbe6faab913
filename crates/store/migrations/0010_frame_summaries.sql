-- What a list shows of a frame, as JSON: without the setup, which is nearly all of it. Empty where a Tolva of before wrote the
-- row; filled when the file is opened.
ALTER TABLE frames ADD COLUMN summary TEXT NOT NULL DEFAULT '';
