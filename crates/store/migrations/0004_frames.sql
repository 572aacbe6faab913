-- Frames that were taken of a job's setups. What was measured of them and the setup as it stood is in `content`; a small copy
-- of each picture is a file in the folder beside the data file that is called by its name and `.frames`.
CREATE TABLE frames (
    row       INTEGER PRIMARY KEY,
    id        TEXT    NOT NULL UNIQUE,
    job_id    TEXT    NOT NULL REFERENCES documents (id) ON DELETE CASCADE,
    setup_id  TEXT    NOT NULL,
    -- The file it came from: the same file comes once only.
    hash      TEXT    NOT NULL,
    added_at  INTEGER NOT NULL,
    binned_at INTEGER,
    -- JSON, or JSON compressed (zstd).
    content   BLOB    NOT NULL,
    UNIQUE (job_id, hash)
) STRICT;

CREATE INDEX frames_by_setup ON frames (job_id, setup_id, row);

-- The folder whose new pictures become frames of a setup; one at a time.
CREATE TABLE watched (
    id       INTEGER PRIMARY KEY CHECK (id = 1),
    folder   TEXT    NOT NULL,
    job_id   TEXT    NOT NULL REFERENCES documents (id) ON DELETE CASCADE,
    setup_id TEXT    NOT NULL
) STRICT;
