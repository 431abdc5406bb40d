-- A position that cannot be read is said, with the reason, and can be taken back; the newest row holds.
CREATE TABLE unreadable (
    unreadable_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    job_id         uuid NOT NULL REFERENCES job,
    fitting_id     uuid NOT NULL REFERENCES fitting,
    hour           numeric(4, 2) NOT NULL CHECK (hour > 0 AND hour <= 12),
    unreadable     boolean NOT NULL,
    reason         text NOT NULL CHECK (NOT unreadable OR reason <> ''),
    made_at        timestamptz NOT NULL DEFAULT now(),
    made_by        uuid NOT NULL REFERENCES person,
    event          bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON unreadable (job_id, event);

-- Where a gauge sends its readings, and how its lines are written; the newest row of a gauge holds.
CREATE TABLE gauge_link (
    gauge_link_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    gauge_id       uuid NOT NULL REFERENCES gauge,
    url            text NOT NULL,
    line_pattern   text NOT NULL,
    unit           text NOT NULL,
    simulated      boolean NOT NULL,
    saved_at       timestamptz NOT NULL DEFAULT clock_timestamp()
);

DO $$
DECLARE
    name text;
BEGIN
    FOREACH name IN ARRAY ARRAY['unreadable', 'gauge_link'] LOOP
        EXECUTE format(
            'CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION refuse_change()',
            name);
        EXECUTE format(
            'CREATE TRIGGER never_emptied BEFORE TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()',
            name);
    END LOOP;
END
$$;
