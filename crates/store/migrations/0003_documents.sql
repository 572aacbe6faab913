-- Jobs and the kit become documents of a kind, each with a head that must be one of its revisions. Times are whole
-- milliseconds since 1970, so that they sort. Lists read the summary columns, never the documents.
CREATE TABLE documents (
    row        INTEGER PRIMARY KEY,
    id         TEXT    NOT NULL UNIQUE,
    kind       TEXT    NOT NULL CHECK (kind IN ('job', 'kit')),
    head       INTEGER NOT NULL,
    created_at INTEGER NOT NULL,
    saved_at   INTEGER NOT NULL,
    binned_at  INTEGER,
    name       TEXT    NOT NULL DEFAULT '',
    client     TEXT    NOT NULL DEFAULT '',
    place      TEXT    NOT NULL DEFAULT '',
    date       TEXT    NOT NULL DEFAULT '',
    setups     TEXT    NOT NULL DEFAULT '[]',
    -- The version of the format in which the head was last written or read; 0 where it could not be read.
    read_as    INTEGER NOT NULL DEFAULT 0,
    FOREIGN KEY (id, head) REFERENCES revisions (document_id, number) DEFERRABLE INITIALLY DEFERRED
) STRICT;

CREATE INDEX documents_by_time ON documents (kind, binned_at, saved_at DESC, row DESC);

-- Nothing is overwritten: undo moves the head to the parent, redo to the newest child, a save adds a child. Old ones thin
-- out, but for those with a name. The content is JSON, or JSON compressed (zstd).
CREATE TABLE revisions (
    document_id TEXT    NOT NULL REFERENCES documents (id) ON DELETE CASCADE DEFERRABLE INITIALLY DEFERRED,
    number      INTEGER NOT NULL,
    parent      INTEGER,
    saved_at    INTEGER NOT NULL,
    change      TEXT    NOT NULL,
    point       TEXT,
    content     BLOB    NOT NULL,
    PRIMARY KEY (document_id, number),
    FOREIGN KEY (document_id, parent) REFERENCES revisions (document_id, number) DEFERRABLE INITIALLY DEFERRED
) STRICT;

CREATE INDEX revisions_by_parent ON revisions (document_id, parent);

-- The things that were in the kit once, as a kit file.
CREATE TABLE retired (
    id      INTEGER PRIMARY KEY CHECK (id = 1),
    content BLOB NOT NULL
) STRICT;

-- What was done under a key: the same request sent again is answered, not carried out again.
CREATE TABLE acts (
    key         TEXT    PRIMARY KEY NOT NULL,
    document_id TEXT    NOT NULL REFERENCES documents (id) ON DELETE CASCADE,
    done_at     INTEGER NOT NULL
) STRICT, WITHOUT ROWID;

CREATE VIRTUAL TABLE words USING fts5 (name, client, place, date, setups, tokenize = 'unicode61 remove_diacritics 2');

INSERT INTO documents (id, kind, head, created_at, saved_at, binned_at)
SELECT j.id, j.kind, j.head,
       CAST(ROUND((julianday(j.created_at) - 2440587.5) * 86400000) AS INTEGER),
       CAST(ROUND((julianday(r.saved_at) - 2440587.5) * 86400000) AS INTEGER),
       CAST(ROUND((julianday(j.binned_at) - 2440587.5) * 86400000) AS INTEGER)
FROM job j JOIN revision r ON r.job_id = j.id AND r.number = j.head
WHERE j.kind IN ('job', 'kit');

INSERT INTO revisions (document_id, number, parent, saved_at, change, content)
SELECT r.job_id, r.number, r.parent,
       CAST(ROUND((julianday(r.saved_at) - 2440587.5) * 86400000) AS INTEGER),
       r.change, CAST(r.document AS BLOB)
FROM revision r JOIN documents d ON d.id = r.job_id;

UPDATE documents SET
    (name, client, place, date, setups) = (
        SELECT COALESCE(r.document ->> '$.name', ''), COALESCE(r.document ->> '$.client', ''),
               COALESCE(r.document ->> '$.place', ''), COALESCE(r.document ->> '$.date', ''),
               COALESCE((SELECT json_group_array(s.value ->> '$.name') FROM json_each(r.document, '$.setups') s), '[]')
        FROM revision r WHERE r.job_id = documents.id AND r.number = documents.head)
WHERE kind = 'job'
  AND (SELECT json_valid(r.document) FROM revision r WHERE r.job_id = documents.id AND r.number = documents.head);

INSERT INTO words (rowid, name, client, place, date, setups)
SELECT row, name, client, place, date, setups FROM documents WHERE kind = 'job';

-- What had left the kit was kept without a version, in the names of format 3 or 4: reading version 3 takes both.
INSERT INTO retired (id, content)
SELECT 1, CAST(json_object('format', 'tolva-kit', 'format_version', 3, 'kit', json(r.document)) AS BLOB)
FROM job j JOIN revision r ON r.job_id = j.id AND r.number = j.head
WHERE j.kind = 'left' AND json_valid(r.document);

DROP TABLE revision;
DROP TABLE job;

-- "Tolv": a file of another program is known by having another number.
PRAGMA application_id = 1416588406;
