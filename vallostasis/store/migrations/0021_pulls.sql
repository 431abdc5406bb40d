-- Liners as they go in: pulls, what was looked at, measured and felt on the way. Every row is a fact of a job.
CREATE TABLE pull (
    pull_id      uuid PRIMARY KEY,
    job_id       uuid NOT NULL REFERENCES job,
    hole_id      uuid NOT NULL REFERENCES hole,
    liner_id     uuid NOT NULL REFERENCES liner,
    tool         text NOT NULL,
    capacity_kn  numeric CHECK (capacity_kn > 0),
    turn_um      numeric CHECK (turn_um > 0),
    from_um      numeric NOT NULL CHECK (from_um > 0),
    slides       text NOT NULL,
    stop         text NOT NULL,
    cranks       text NOT NULL DEFAULT '',
    watches      text NOT NULL DEFAULT '',
    began_at     timestamptz NOT NULL DEFAULT now(),
    began_by     uuid NOT NULL REFERENCES person,
    event        bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE TABLE pull_mark (
    pull_mark_id  uuid PRIMARY KEY,
    job_id        uuid NOT NULL REFERENCES job,
    pull_id       uuid NOT NULL REFERENCES pull,
    kind          text NOT NULL,
    to_go_um      numeric,
    force_kn      numeric CHECK (force_kn >= 0),
    typed         text NOT NULL DEFAULT '',
    words         text NOT NULL DEFAULT '',
    noted_at      timestamptz NOT NULL DEFAULT now(),
    noted_by      uuid NOT NULL REFERENCES person,
    event         bigint NOT NULL DEFAULT nextval('event_number')
);
-- The bore of a liner before it goes in.
INSERT INTO feature (quantity) VALUES ('liner inside');

-- Pullers and presses of the shop; the newest row of a name holds.
CREATE TABLE press_tool (
    press_tool_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    name           text NOT NULL CHECK (name <> ''),
    kind           text NOT NULL,
    capacity_kn    numeric NOT NULL CHECK (capacity_kn > 0),
    turn_um        numeric CHECK (turn_um > 0),
    force_shown    boolean NOT NULL DEFAULT false,
    note           text NOT NULL DEFAULT '',
    saved_at       timestamptz NOT NULL DEFAULT now(),
    saved_by       uuid NOT NULL REFERENCES person,
    event          bigint NOT NULL DEFAULT nextval('event_number')
);

DO $$
DECLARE
    name text;
BEGIN
    FOREACH name IN ARRAY ARRAY['pull', 'pull_mark'] LOOP
        EXECUTE format('CREATE INDEX ON %I (job_id, event)', name);
    END LOOP;
    FOREACH name IN ARRAY ARRAY['pull', 'pull_mark', 'press_tool'] LOOP
        EXECUTE format(
            'CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION refuse_change()',
            name);
        EXECUTE format(
            'CREATE TRIGGER never_emptied BEFORE TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()',
            name);
    END LOOP;
END
$$;
