-- Pictures in the folder of frames that no frame refers to, and since when that was seen: a copy that is restored may know
-- again what this file has forgotten, so they stay as long as the bin does.
CREATE TABLE litter (
    name  TEXT    PRIMARY KEY NOT NULL,
    since INTEGER NOT NULL
) STRICT, WITHOUT ROWID;

-- A hash of what was sent under a key: the same key with something else is no repetition.
ALTER TABLE acts ADD COLUMN said TEXT NOT NULL DEFAULT '';
