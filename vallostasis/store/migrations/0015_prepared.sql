-- A block made ready to be cut: steps that are counted, and looks that settle something. Every row is a fact of a job.
CREATE TABLE prep_step (
    prep_step_id  uuid PRIMARY KEY,
    job_id     uuid NOT NULL REFERENCES job,
    kind       text NOT NULL,
    place      text NOT NULL DEFAULT '',
    count      int NOT NULL CHECK (count BETWEEN 0 AND 10000),
    words      text NOT NULL DEFAULT '',
    noted_at   timestamptz NOT NULL DEFAULT now(),
    noted_by   uuid NOT NULL REFERENCES person,
    event      bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE TABLE inspection (
    inspection_id  uuid PRIMARY KEY,
    job_id     uuid NOT NULL REFERENCES job,
    kind       text NOT NULL,
    hole_id    uuid REFERENCES hole,
    outcome    text NOT NULL,
    words      text NOT NULL DEFAULT '',
    figure_um  numeric CHECK (figure_um >= 0),
    typed      text NOT NULL DEFAULT '',
    noted_at   timestamptz NOT NULL DEFAULT now(),
    noted_by   uuid NOT NULL REFERENCES person,
    event      bigint NOT NULL DEFAULT nextval('event_number'),
    CONSTRAINT waived_with_a_reason CHECK (outcome <> 'waived' OR words <> '')
);
-- The plan of a block that somebody chose: a row for each hole, all of one plan under one id.
CREATE TABLE planned_hole (
    plan_id    uuid NOT NULL,
    job_id     uuid NOT NULL REFERENCES job,
    hole_id    uuid NOT NULL REFERENCES hole,
    rule       text NOT NULL,
    datum      text NOT NULL,
    undecided_too  boolean NOT NULL,
    lock       text NOT NULL,
    lock_shim_um  numeric,
    target_um  numeric,
    depth_um   numeric,
    shim_um    numeric,
    place      int,
    chosen_at  timestamptz NOT NULL DEFAULT now(),
    chosen_by  uuid NOT NULL REFERENCES person,
    event      bigint NOT NULL DEFAULT nextval('event_number'),
    PRIMARY KEY (plan_id, hole_id)
);
-- What is found somewhere on deck or ledge says where it lies, and which reading it explains.
ALTER TABLE finding
    ADD COLUMN hour         numeric CHECK (hour > 0 AND hour <= 12),
    ADD COLUMN until_hour   numeric CHECK (until_hour > 0 AND until_hour <= 12),
    ADD COLUMN distance_um  numeric CHECK (distance_um >= 0),
    ADD COLUMN width_um     numeric CHECK (width_um >= 0),
    ADD COLUMN reading_id   uuid REFERENCES reading;

DO $$
DECLARE
    name text;
BEGIN
    FOREACH name IN ARRAY ARRAY['prep_step', 'inspection', 'planned_hole'] LOOP
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
