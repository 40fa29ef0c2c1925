-- Marks of the pieces that are in a job, by a key that is the same for marks that look alike: no two pieces of one job share
-- one. Kept with each save in its own transaction, so that no race, undo or putting back can make two alike.
CREATE TABLE marks (
    job_id INTEGER NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
    key TEXT NOT NULL,
    mark TEXT NOT NULL,
    piece_id INTEGER NOT NULL REFERENCES pieces (id) ON DELETE CASCADE,
    PRIMARY KEY (job_id, key)
) STRICT;
CREATE INDEX marks_of_piece ON marks (piece_id);
