-- What a job has on order, out of the house or on loan, and what became of it. Facts of the job.
CREATE TABLE part_order (
    order_id    uuid PRIMARY KEY,
    job_id      uuid NOT NULL REFERENCES job,
    kind        text NOT NULL,
    what        text NOT NULL,
    count       integer NOT NULL CHECK (count > 0),
    whom        text NOT NULL,
    words       text NOT NULL DEFAULT '',
    key         text NOT NULL DEFAULT '',
    price       numeric CHECK (price >= 0),
    due         date,
    wanted_um   numeric,
    wanted_typed text NOT NULL DEFAULT '',
    within_um   numeric CHECK (within_um >= 0),
    wait_id     uuid REFERENCES wait,
    ordered_at  timestamptz NOT NULL DEFAULT now(),
    ordered_by  uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON part_order (job_id, event);
CREATE TABLE order_move (
    job_id      uuid NOT NULL REFERENCES job,
    order_id    uuid NOT NULL REFERENCES part_order,
    kind        text NOT NULL,
    due         date,
    measured_um numeric,
    typed       text NOT NULL DEFAULT '',
    words       text NOT NULL DEFAULT '',
    noted_at    timestamptz NOT NULL DEFAULT now(),
    noted_by    uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON order_move (job_id, event);

DO $$
DECLARE
    name text;
BEGIN
    FOREACH name IN ARRAY ARRAY['part_order', 'order_move'] LOOP
        EXECUTE format(
            'CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION refuse_change()',
            name);
        EXECUTE format(
            'CREATE TRIGGER never_emptied BEFORE TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()',
            name);
    END LOOP;
END
$$;
