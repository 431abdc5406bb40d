-- Liners as they drop, hot and cold: runs, and what was looked at, done, felt and read on the way. Facts of a job.
CREATE TABLE heat_run (
    heat_run_id  uuid PRIMARY KEY,
    job_id       uuid NOT NULL REFERENCES job,
    hole_id      uuid NOT NULL REFERENCES hole,
    liner_id     uuid NOT NULL REFERENCES liner,
    block_c      numeric NOT NULL,
    liner_c      numeric NOT NULL,
    air_c        numeric NOT NULL,
    humidity     numeric NOT NULL CHECK (humidity > 0 AND humidity <= 1),
    wanted_um    numeric NOT NULL CHECK (wanted_um > 0),
    enter_s      numeric NOT NULL CHECK (enter_s >= 0),
    home_s       numeric NOT NULL CHECK (home_s >= 0),
    block_kg     numeric NOT NULL CHECK (block_kg > 0),
    greased      boolean NOT NULL,
    drops        text NOT NULL DEFAULT '',
    calls        text NOT NULL DEFAULT '',
    began_at     timestamptz NOT NULL DEFAULT now(),
    began_by     uuid NOT NULL REFERENCES person,
    event        bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE TABLE heat_mark (
    heat_mark_id  uuid PRIMARY KEY,
    job_id        uuid NOT NULL REFERENCES job,
    heat_run_id   uuid NOT NULL REFERENCES heat_run,
    kind          text NOT NULL,
    celsius       numeric CHECK (celsius > -274),
    height_um     numeric,
    typed         text NOT NULL DEFAULT '',
    words         text NOT NULL DEFAULT '',
    noted_at      timestamptz NOT NULL DEFAULT now(),
    noted_by      uuid NOT NULL REFERENCES person,
    event         bigint NOT NULL DEFAULT nextval('event_number')
);
-- A thermometer may be clipped to the block in the oven or to the liner in the cold.
ALTER TABLE thermometer DROP CONSTRAINT thermometer_lies_on_check;
ALTER TABLE thermometer ADD CONSTRAINT thermometer_lies_on_check CHECK (lies_on IN ('part', 'room', 'block', 'liner'));

DO $$
DECLARE
    name text;
BEGIN
    FOREACH name IN ARRAY ARRAY['heat_run', 'heat_mark'] LOOP
        EXECUTE format('CREATE INDEX ON %I (job_id, event)', name);
        EXECUTE format(
            'CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION refuse_change()',
            name);
        EXECUTE format(
            'CREATE TRIGGER never_emptied BEFORE TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()',
            name);
    END LOOP;
END
$$;
