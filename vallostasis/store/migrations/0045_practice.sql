-- Practice: what was tried on invented blocks, kept apart from jobs. Nothing here refers to a job, nor a job to it.
CREATE TABLE practice_own (
    own_id    uuid PRIMARY KEY,
    exercise  jsonb NOT NULL,
    made_by   uuid NOT NULL REFERENCES person,
    made_at   timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE practice_attempt (
    attempt_id  uuid PRIMARY KEY,
    exercise    text NOT NULL CHECK (length(exercise) BETWEEN 1 AND 60),
    seed        integer NOT NULL CHECK (seed BETWEEN 0 AND 999999),
    person_id   uuid NOT NULL REFERENCES person,
    begun_at    timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX practice_attempt_of_person ON practice_attempt (person_id, begun_at);

-- Moves of an attempt in their order; what they led to follows from the seed.
CREATE TABLE practice_move (
    attempt_id  uuid NOT NULL REFERENCES practice_attempt,
    place       integer NOT NULL CHECK (place BETWEEN 0 AND 199),
    name        text NOT NULL,
    given       jsonb NOT NULL,
    at_s        double precision NOT NULL CHECK (at_s BETWEEN 0 AND 1000000),
    made_at     timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (attempt_id, place)
);

CREATE TABLE practice_result (
    attempt_id  uuid PRIMARY KEY REFERENCES practice_attempt,
    result_no   bigint GENERATED ALWAYS AS IDENTITY UNIQUE,
    points      integer NOT NULL CHECK (points >= 0),
    points_of   integer NOT NULL CHECK (points_of >= points),
    skills      jsonb NOT NULL,
    traps       text[] NOT NULL,
    ended_at    timestamptz NOT NULL DEFAULT now()
);

DO $$
DECLARE
    name text;
BEGIN
    FOREACH name IN ARRAY ARRAY['practice_own', 'practice_attempt', 'practice_move', 'practice_result'] LOOP
        EXECUTE format(
            'CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION refuse_change()',
            name);
        EXECUTE format(
            'CREATE TRIGGER never_emptied BEFORE TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()',
            name);
    END LOOP;
END
$$;
