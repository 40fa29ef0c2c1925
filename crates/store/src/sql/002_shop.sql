-- A second picture of a piece: a photo or scan that its outline is traced from.
CREATE TABLE photos (
    piece_id INTEGER PRIMARY KEY REFERENCES pieces (id) ON DELETE CASCADE,
    kind TEXT NOT NULL CHECK (kind IN ('image/png', 'image/jpeg', 'image/webp')),
    bytes BLOB NOT NULL,
    at TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now'))
) STRICT;

-- The shop's own tables, as text; a table that is not here is the one that Steelk ships.
CREATE TABLE shop_tables (
    name TEXT PRIMARY KEY,
    version INTEGER NOT NULL,
    text TEXT NOT NULL,
    at TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now'))
) STRICT;
