-- What is decided for each bore, by name, and what was seen of it after it was cut.
CREATE TABLE bore_decision (
    decision_id  uuid PRIMARY KEY,
    job_id       uuid NOT NULL REFERENCES job,
    hole_id      uuid NOT NULL REFERENCES hole,
    choice       text NOT NULL,
    oversize_um  numeric CHECK (oversize_um > 0),
    move_um      numeric CHECK (move_um >= 0),
    toward_hour  numeric CHECK (toward_hour > 0 AND toward_hour <= 12),
    reason       text NOT NULL CHECK (reason <> ''),
    concession   text NOT NULL DEFAULT '',
    profile      text NOT NULL,
    use_limit    text NOT NULL DEFAULT '',
    decided_at   timestamptz NOT NULL DEFAULT now(),
    decided_by   uuid NOT NULL REFERENCES person,
    event        bigint NOT NULL DEFAULT nextval('event_number'),
    CONSTRAINT a_step_has_its_size CHECK ((choice = 'bore to a step') = (oversize_um IS NOT NULL)),
    CONSTRAINT a_concession_has_its_limit CHECK (concession = '' OR use_limit <> '')
);
CREATE TABLE bore_look (
    look_id      uuid PRIMARY KEY,
    job_id       uuid NOT NULL REFERENCES job,
    hole_id      uuid NOT NULL REFERENCES hole,
    oversize_um  numeric NOT NULL CHECK (oversize_um > 0),
    outcome      text NOT NULL,
    words        text NOT NULL DEFAULT '',
    hour         numeric CHECK (hour > 0 AND hour <= 12),
    from_um      numeric CHECK (from_um >= 0),
    looked_at    timestamptz NOT NULL DEFAULT now(),
    looked_by    uuid NOT NULL REFERENCES person,
    event        bigint NOT NULL DEFAULT nextval('event_number')
);

DO $$
DECLARE
    name text;
BEGIN
    FOREACH name IN ARRAY ARRAY['bore_decision', 'bore_look'] LOOP
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
