-- The kit is kept the way a job is: one document, by its revisions. Its row is of another kind than the jobs'.
ALTER TABLE job ADD COLUMN kind TEXT NOT NULL DEFAULT 'job';
