-- What was done to a job, line by line: it outlives the revisions, which thin out, and undo adds to it.
CREATE TABLE log (
    row      INTEGER PRIMARY KEY,
    job_id   TEXT    NOT NULL REFERENCES documents (id) ON DELETE CASCADE,
    at       INTEGER NOT NULL,
    -- Which device; empty for the machine Tolva runs on.
    who      TEXT    NOT NULL DEFAULT '',
    kind     TEXT    NOT NULL,
    -- The setup it is about; null where it is about the job.
    setup_id TEXT,
    says     TEXT    NOT NULL
) STRICT;

CREATE INDEX log_by_job ON log (job_id, row);

-- Jobs are also found by what their setups use: kit, blend, light. That is filled in when they are next read or saved.
ALTER TABLE documents ADD COLUMN used TEXT NOT NULL DEFAULT '';
-- The first and the last day a job is on, by what is written on it and by its setups; empty where nothing says it.
ALTER TABLE documents ADD COLUMN first_day TEXT NOT NULL DEFAULT '';
ALTER TABLE documents ADD COLUMN last_day TEXT NOT NULL DEFAULT '';
CREATE INDEX documents_by_day ON documents (kind, binned_at, last_day);

DROP TABLE words;
CREATE VIRTUAL TABLE words USING fts5 (name, client, place, date, setups, used, tokenize = 'unicode61 remove_diacritics 2');

INSERT INTO words (rowid, name, client, place, date, setups, used)
SELECT row, name, client, place, date, setups, used FROM documents WHERE kind = 'job';

UPDATE documents SET read_as = 0 WHERE kind = 'job';
