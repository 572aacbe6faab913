-- Phones and tablets that may talk to this Tolva over the set's own network. Of what each carries only a hash is kept.
CREATE TABLE devices (
    id         TEXT    PRIMARY KEY NOT NULL,
    name       TEXT    NOT NULL,
    token_hash TEXT    NOT NULL UNIQUE,
    rights     TEXT    NOT NULL CHECK (rights IN ('look', 'tick', 'all')),
    joined_at  INTEGER NOT NULL
) STRICT;
