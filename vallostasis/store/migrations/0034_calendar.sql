-- Dates of a job as they were said: what it is promised for, what is pinned, what is waited for and comes another day.
CREATE TABLE promise (
    job_id      uuid NOT NULL REFERENCES job,
    promised    date,
    told        text NOT NULL DEFAULT '',
    last_day    date,
    day_cost    numeric CHECK (day_cost >= 0),
    promised_at timestamptz NOT NULL DEFAULT now(),
    promised_by uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON promise (job_id, event);
CREATE TABLE pin (
    job_id      uuid NOT NULL REFERENCES job,
    operation   text NOT NULL,
    starts_at   timestamptz,
    person      text NOT NULL DEFAULT '',
    pinned_at   timestamptz NOT NULL DEFAULT now(),
    pinned_by   uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON pin (job_id, event);
CREATE TABLE wait_moved (
    job_id      uuid NOT NULL REFERENCES job,
    wait_id     uuid NOT NULL REFERENCES wait,
    expected    date,
    words       text NOT NULL DEFAULT '',
    moved_at    timestamptz NOT NULL DEFAULT now(),
    moved_by    uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON wait_moved (job_id, event);
-- Whether hours stand on the bill.
ALTER TABLE clock_mark ADD COLUMN bill text NOT NULL DEFAULT 'within what was agreed';

-- The shop's own time; the newest row counts. Spans of each weekday from Monday on, in minutes of the day.
CREATE TABLE shop_hours (
    zone        text NOT NULL,
    week        jsonb NOT NULL,
    set_at      timestamptz NOT NULL DEFAULT now(),
    set_by      uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number')
);
-- A person, a machine or the whole shop (an empty name) that cannot be had; taken back where it is no longer true.
CREATE TABLE away (
    away_id     uuid PRIMARY KEY,
    what        text NOT NULL,
    starts_at   timestamptz NOT NULL,
    ends_at     timestamptz NOT NULL,
    words       text NOT NULL DEFAULT '',
    noted_at    timestamptz NOT NULL DEFAULT now(),
    noted_by    uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number'),
    CHECK (starts_at < ends_at)
);
CREATE TABLE shop_machine (
    machine     text NOT NULL,
    count       integer NOT NULL CHECK (count >= 0),
    set_at      timestamptz NOT NULL DEFAULT now(),
    set_by      uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number')
);
-- Somebody who comes from elsewhere, and what he needs ready.
CREATE TABLE visit (
    visit_id    uuid PRIMARY KEY,
    name        text NOT NULL,
    job_id      uuid REFERENCES job,
    operations  text[] NOT NULL,
    starts_at   timestamptz NOT NULL,
    ends_at     timestamptz NOT NULL,
    needs       text[] NOT NULL,
    noted_at    timestamptz NOT NULL DEFAULT now(),
    noted_by    uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number'),
    CHECK (starts_at < ends_at)
);
-- An absence or a visit that does not come about.
CREATE TABLE taken_back (
    away_id     uuid REFERENCES away,
    visit_id    uuid REFERENCES visit,
    noted_at    timestamptz NOT NULL DEFAULT now(),
    noted_by    uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number'),
    CHECK ((away_id IS NULL) <> (visit_id IS NULL))
);

DO $$
DECLARE
    name text;
BEGIN
    FOREACH name IN ARRAY ARRAY['promise', 'pin', 'wait_moved', 'shop_hours', 'away', 'shop_machine', 'visit',
                                'taken_back'] LOOP
        EXECUTE format(
            'CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION refuse_change()',
            name);
        EXECUTE format(
            'CREATE TRIGGER never_emptied BEFORE TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()',
            name);
    END LOOP;
END
$$;
