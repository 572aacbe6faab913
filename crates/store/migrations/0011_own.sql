-- What a data file is known by: the folders beside it carry it in their names, so that another file of the same name, put in
-- this one's place, never touches them. A file that was there before Tolva gave ids has folders without one, which are its own
-- and still to be renamed (`claimed` = 0).
CREATE TABLE own (
    id      TEXT    NOT NULL,
    claimed INTEGER NOT NULL
) STRICT;
INSERT INTO own (id, claimed) SELECT lower(hex(randomblob(4))), NOT EXISTS (SELECT 1 FROM documents);
