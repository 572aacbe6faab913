-- A job is its revisions; nothing is ever overwritten. `head` is the revision that is shown: undo moves it to the
-- parent, redo to the newest child, and a save adds a child.
CREATE TABLE job (
    id         TEXT    PRIMARY KEY NOT NULL,
    head       INTEGER NOT NULL,
    created_at TEXT    NOT NULL,
    binned_at  TEXT
) STRICT;

CREATE TABLE revision (
    job_id   TEXT    NOT NULL REFERENCES job (id) ON DELETE CASCADE,
    number   INTEGER NOT NULL,
    parent   INTEGER,
    saved_at TEXT    NOT NULL,
    change   TEXT    NOT NULL,
    document TEXT    NOT NULL,
    PRIMARY KEY (job_id, number),
    FOREIGN KEY (job_id, parent) REFERENCES revision (job_id, number)
) STRICT;

CREATE INDEX revision_by_parent ON revision (job_id, parent);

-- How one person likes numbers shown, and the theme: one row.
CREATE TABLE preference (
    id       INTEGER PRIMARY KEY CHECK (id = 1),
    document TEXT NOT NULL
) STRICT;
