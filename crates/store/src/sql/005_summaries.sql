-- What the rack and a job tell of a piece, as it was worked out of one revision of it. It is behind where the revision or
-- the stamp of what it was worked out with is no longer what is now, or where it is to be tried again since.
CREATE TABLE summaries (
    piece_id INTEGER PRIMARY KEY REFERENCES pieces (id) ON DELETE CASCADE,
    version INTEGER NOT NULL,
    stamp TEXT NOT NULL,
    retry_at INTEGER,
    mark TEXT NOT NULL,
    title TEXT NOT NULL,
    words TEXT NOT NULL,
    items INTEGER NOT NULL,
    mass REAL NOT NULL,
    holds INTEGER NOT NULL,
    callouts INTEGER NOT NULL,
    broken INTEGER NOT NULL
) STRICT;

-- The whole of what is told of it, apart: adding figures up reads none of it.
CREATE TABLE summary_lines (
    piece_id INTEGER PRIMARY KEY REFERENCES pieces (id) ON DELETE CASCADE,
    line TEXT NOT NULL
) STRICT;

DROP INDEX pieces_of_job;
CREATE INDEX pieces_of_job ON pieces (job_id, removed, head);
