-- What was changed or looked at because something does not add up: one thing at a time. Facts of the job.
CREATE TABLE experiment (
    experiment_id  uuid PRIMARY KEY,
    job_id      uuid NOT NULL REFERENCES job,
    matter      text NOT NULL,
    check_name  text NOT NULL DEFAULT '',
    places      text NOT NULL DEFAULT '',
    change      text NOT NULL,
    expected    text NOT NULL,
    begun_at    timestamptz NOT NULL DEFAULT now(),
    begun_by    uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON experiment (job_id, event);
CREATE TABLE experiment_result (
    job_id      uuid NOT NULL REFERENCES job,
    experiment_id  uuid NOT NULL REFERENCES experiment,
    value_um    numeric,
    typed       text NOT NULL DEFAULT '',
    typed_unit  text NOT NULL DEFAULT '',
    words       text NOT NULL DEFAULT '',
    minutes     numeric NOT NULL CHECK (minutes >= 0),
    money       numeric CHECK (money >= 0),
    settled_at  timestamptz NOT NULL DEFAULT now(),
    settled_by  uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON experiment_result (job_id, event);
-- What was settled, kept to be found again by likeness and by words: also from other jobs.
CREATE TABLE kept_case (
    case_id     uuid PRIMARY KEY,
    job_id      uuid NOT NULL REFERENCES job,
    matter      text NOT NULL,
    symptom     text NOT NULL,
    shape       text NOT NULL,
    false_leads text NOT NULL DEFAULT '',
    cause       text NOT NULL,
    found_with    text NOT NULL DEFAULT '',
    minutes     numeric NOT NULL CHECK (minutes >= 0),
    words       text NOT NULL DEFAULT '',
    kept_at     timestamptz NOT NULL DEFAULT now(),
    kept_by     uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON kept_case (job_id, event);
-- Causes and checks of the shop's own: the newest row of a name counts.
CREATE TABLE shop_cause (
    name        text NOT NULL,
    shows       text NOT NULL,
    pattern     text NOT NULL,
    low_um      numeric NOT NULL,
    high_um     numeric NOT NULL,
    prior       numeric NOT NULL CHECK (prior >= 0 AND prior <= 1),
    set_at      timestamptz NOT NULL DEFAULT now(),
    set_by      uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number'),
    CHECK (low_um <= high_um)
);
CREATE TABLE shop_check (
    name        text NOT NULL,
    tools       text NOT NULL,
    minutes     numeric NOT NULL CHECK (minutes > 0),
    asks        text NOT NULL,
    check_at    text NOT NULL,
    finds       text NOT NULL,
    standard_um numeric NOT NULL CHECK (standard_um > 0),
    set_at      timestamptz NOT NULL DEFAULT now(),
    set_by      uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number')
);

DO $$
DECLARE
    name text;
BEGIN
    FOREACH name IN ARRAY ARRAY['experiment', 'experiment_result', 'kept_case', 'shop_cause', 'shop_check'] LOOP
        EXECUTE format(
            'CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION refuse_change()',
            name);
        EXECUTE format(
            'CREATE TRIGGER never_emptied BEFORE TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()',
            name);
    END LOOP;
END
$$;
