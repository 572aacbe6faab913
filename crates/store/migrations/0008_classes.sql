-- Which class an answer was asked for; empty for one's own practice.
ALTER TABLE attempts ADD COLUMN class TEXT NOT NULL DEFAULT '';
