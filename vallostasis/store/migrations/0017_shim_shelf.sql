-- The shelf of shims: lots as they came, and what was done with them. Nothing is changed, what moved is a row.
CREATE TABLE shim_lot (
    shim_lot_id  uuid PRIMARY KEY,
    size_um      numeric NOT NULL CHECK (size_um > 0),
    typed        text NOT NULL,
    measured_um  numeric CHECK (measured_um > 0),
    lot          text NOT NULL DEFAULT '',
    price        numeric CHECK (price >= 0),
    outside_um   numeric CHECK (outside_um > 0),
    side_up      text NOT NULL,
    count        int NOT NULL CHECK (count BETWEEN 0 AND 10000),
    noted_at     timestamptz NOT NULL DEFAULT now(),
    noted_by     uuid NOT NULL REFERENCES person,
    event        bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE TABLE shim_move (
    shim_move_id  uuid PRIMARY KEY,
    shim_lot_id  uuid NOT NULL REFERENCES shim_lot,
    kind         text NOT NULL,
    count        int NOT NULL CHECK (count BETWEEN 1 AND 10000),
    job_id       uuid REFERENCES job,
    fitting_id   uuid REFERENCES fitting,
    words        text NOT NULL DEFAULT '',
    noted_at     timestamptz NOT NULL DEFAULT now(),
    noted_by     uuid NOT NULL REFERENCES person,
    event        bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON shim_move (shim_lot_id, event);

DO $$
DECLARE
    name text;
BEGIN
    FOREACH name IN ARRAY ARRAY['shim_lot', 'shim_move'] LOOP
        EXECUTE format(
            'CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION refuse_change()',
            name);
        EXECUTE format(
            'CREATE TRIGGER never_emptied BEFORE TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()',
            name);
    END LOOP;
END
$$;
