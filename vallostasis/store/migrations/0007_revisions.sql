-- Bookkeeping, no fact: a stamp for each job that is new with every change to it, and one for what all jobs share.
-- Whoever writes takes the row first, so that one writer at a time records to a job; whoever knows what a job was at
-- its stamp need not read it again. Stamps are drawn, not counted: a database brought back from a copy repeats none.
CREATE TABLE revision (
    of_id   uuid PRIMARY KEY,
    stamp   uuid NOT NULL DEFAULT gen_random_uuid(),
    before  uuid
);
INSERT INTO revision (of_id) VALUES ('00000000-0000-0000-0000-000000000000');
INSERT INTO revision (of_id) SELECT job_id FROM job;
