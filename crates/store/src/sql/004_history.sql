-- What was put in place of something else is kept: pictures of a piece and the shop's tables as they were before.
CREATE TABLE past_pictures (
    piece_id INTEGER NOT NULL REFERENCES pieces (id) ON DELETE CASCADE,
    slot TEXT NOT NULL CHECK (slot IN ('drawing', 'photo')),
    number INTEGER NOT NULL,
    kind TEXT NOT NULL CHECK (kind IN ('image/png', 'image/jpeg', 'image/webp')),
    bytes BLOB NOT NULL,
    at TEXT NOT NULL,
    PRIMARY KEY (piece_id, slot, number)
) STRICT;

CREATE TABLE past_shop_tables (
    name TEXT NOT NULL,
    version INTEGER NOT NULL,
    text TEXT NOT NULL,
    at TEXT NOT NULL,
    PRIMARY KEY (name, version)
) STRICT;
