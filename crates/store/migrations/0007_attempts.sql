-- Answers to drills, in the order they were given.
CREATE TABLE attempts (
    row       INTEGER PRIMARY KEY,
    at        INTEGER NOT NULL,
    -- The day it was where it was answered, counted from 1970-01-01: practice is counted by days.
    day       INTEGER NOT NULL,
    -- Which device; empty for the machine Tolva runs on.
    who       TEXT    NOT NULL DEFAULT '',
    skill     TEXT    NOT NULL,
    level     INTEGER NOT NULL,
    seed      INTEGER NOT NULL,
    answer    INTEGER NOT NULL,
    right     INTEGER NOT NULL,
    -- Null where it is no matter of stops.
    off_stops REAL,
    -- What it was sent under: the same answer sent twice is one.
    key       TEXT UNIQUE
) STRICT;
