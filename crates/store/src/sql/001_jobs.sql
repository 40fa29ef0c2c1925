CREATE TABLE jobs (
    id INTEGER PRIMARY KEY,
    number TEXT NOT NULL,
    title TEXT NOT NULL,
    due TEXT,
    version INTEGER NOT NULL DEFAULT 1,
    removed INTEGER NOT NULL DEFAULT 0,
    created_at TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now'))
) STRICT;

CREATE TABLE pieces (
    id INTEGER PRIMARY KEY,
    job_id INTEGER NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
    head INTEGER NOT NULL DEFAULT 0,
    removed INTEGER NOT NULL DEFAULT 0
) STRICT;
CREATE INDEX pieces_of_job ON pieces (job_id);

-- Every save is a revision. `origin` is the edit whose document this one equals (itself, for an edit); `parent` is the
-- origin it was made from. Undo goes to the parent of the origin, redo to the newest edit made from it.
CREATE TABLE revisions (
    piece_id INTEGER NOT NULL REFERENCES pieces (id) ON DELETE CASCADE,
    number INTEGER NOT NULL,
    document TEXT NOT NULL,
    action TEXT NOT NULL CHECK (action IN ('made', 'edited', 'undone', 'redone', 'restored')),
    origin INTEGER NOT NULL,
    parent INTEGER,
    note TEXT NOT NULL DEFAULT '',
    who TEXT NOT NULL DEFAULT 'designer',
    at TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now')),
    PRIMARY KEY (piece_id, number)
) STRICT;

CREATE TABLE pictures (
    piece_id INTEGER PRIMARY KEY REFERENCES pieces (id) ON DELETE CASCADE,
    kind TEXT NOT NULL CHECK (kind IN ('image/png', 'image/jpeg', 'image/webp')),
    bytes BLOB NOT NULL,
    at TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now'))
) STRICT;

CREATE TABLE log (
    id INTEGER PRIMARY KEY,
    job_id INTEGER NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
    piece_id INTEGER REFERENCES pieces (id) ON DELETE CASCADE,
    who TEXT NOT NULL DEFAULT 'designer',
    what TEXT NOT NULL,
    at TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now'))
) STRICT;
CREATE INDEX log_of_job ON log (job_id, id);
