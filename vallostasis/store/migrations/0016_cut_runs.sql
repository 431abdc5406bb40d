-- Counterbores as they are cut: runs, passes counted, what was looked at on the way. Every row is a fact of a job.
CREATE TABLE cut_run (
    run_id     uuid PRIMARY KEY,
    job_id     uuid NOT NULL REFERENCES job,
    hole_id    uuid NOT NULL REFERENCES hole,
    depth_um   numeric NOT NULL CHECK (depth_um > 0),
    start_um   numeric NOT NULL CHECK (start_um > 0 AND start_um < depth_um),
    shim_um    numeric NOT NULL CHECK (shim_um >= 0),
    graduation_um  numeric NOT NULL CHECK (graduation_um > 0),
    cutter     text NOT NULL,
    vacuum_every  int NOT NULL CHECK (vacuum_every BETWEEN 1 AND 1000),
    started_at timestamptz NOT NULL DEFAULT now(),
    started_by uuid NOT NULL REFERENCES person,
    event      bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE TABLE run_pass (
    pass_id    uuid PRIMARY KEY,
    job_id     uuid NOT NULL REFERENCES job,
    run_id     uuid NOT NULL REFERENCES cut_run,
    number     int NOT NULL CHECK (number BETWEEN 1 AND 5000),
    stop_hour  numeric NOT NULL CHECK (stop_hour > 0 AND stop_hour <= 12),
    noted_at   timestamptz NOT NULL DEFAULT now(),
    noted_by   uuid NOT NULL REFERENCES person,
    event      bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE TABLE run_mark (
    run_mark_id  uuid PRIMARY KEY,
    job_id     uuid NOT NULL REFERENCES job,
    run_id     uuid NOT NULL REFERENCES cut_run,
    kind       text NOT NULL,
    words      text NOT NULL DEFAULT '',
    depth_um   numeric,
    typed      text NOT NULL DEFAULT '',
    noted_at   timestamptz NOT NULL DEFAULT now(),
    noted_by   uuid NOT NULL REFERENCES person,
    event      bigint NOT NULL DEFAULT nextval('event_number')
);
-- The cutters of the shop: a card that is saved is a version, what was done to a cutter is a row.
CREATE TABLE cutter (
    cutter_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    name       text NOT NULL UNIQUE CHECK (name <> '')
);
CREATE TABLE cutter_version (
    cutter_id  uuid NOT NULL REFERENCES cutter,
    version    int NOT NULL CHECK (version > 0),
    bit        text NOT NULL DEFAULT '',
    bit_projection_um  numeric,
    oil        text NOT NULL DEFAULT '',
    collars    text NOT NULL DEFAULT '',
    stop_set   text NOT NULL DEFAULT '',
    graduation_um  numeric NOT NULL CHECK (graduation_um > 0),
    stop_accuracy_um  numeric NOT NULL CHECK (stop_accuracy_um > 0),
    graduation_error_percent  numeric NOT NULL CHECK (graduation_error_percent BETWEEN 0 AND 50),
    torque_nm  numeric,
    bore_least_um  numeric,
    bore_greatest_um  numeric,
    vacuum_every  int NOT NULL CHECK (vacuum_every BETWEEN 1 AND 1000),
    note       text NOT NULL DEFAULT '',
    saved_at   timestamptz NOT NULL DEFAULT now(),
    saved_by   uuid NOT NULL REFERENCES person,
    PRIMARY KEY (cutter_id, version)
);
CREATE TABLE cutter_service (
    cutter_service_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    cutter_id  uuid NOT NULL REFERENCES cutter,
    kind       text NOT NULL,
    words      text NOT NULL DEFAULT '',
    done_on    date NOT NULL,
    noted_at   timestamptz NOT NULL DEFAULT now(),
    noted_by   uuid NOT NULL REFERENCES person,
    event      bigint NOT NULL DEFAULT nextval('event_number')
);
-- The switch that ends a pass: a line over cable or TCP, one for the shop; the newest row holds.
CREATE TABLE pass_switch (
    pass_switch_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    url        text NOT NULL,
    simulated  boolean NOT NULL,
    set_up_at  timestamptz NOT NULL DEFAULT now(),
    event      bigint NOT NULL DEFAULT nextval('event_number')
);

-- What finished runs taught, once their ledge was read: for the plans of every job.
CREATE TABLE lesson (
    run_id     uuid PRIMARY KEY,
    job        text NOT NULL,
    hole       int NOT NULL,
    cutter     text NOT NULL,
    material   text NOT NULL,
    passes     numeric NOT NULL CHECK (passes > 0),
    change_um  numeric NOT NULL,
    off_um     numeric NOT NULL,
    pass_s     numeric[] NOT NULL,
    event      bigint NOT NULL DEFAULT nextval('event_number')
);

DO $$
DECLARE
    name text;
BEGIN
    FOREACH name IN ARRAY ARRAY['cut_run', 'run_pass', 'run_mark'] LOOP
        EXECUTE format('CREATE INDEX ON %I (job_id, event)', name);
    END LOOP;
    FOREACH name IN ARRAY ARRAY[
        'cut_run', 'run_pass', 'run_mark', 'cutter', 'cutter_version', 'cutter_service', 'pass_switch', 'lesson'
    ] LOOP
        EXECUTE format(
            'CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION refuse_change()',
            name);
        EXECUTE format(
            'CREATE TRIGGER never_emptied BEFORE TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()',
            name);
    END LOOP;
END
$$;
