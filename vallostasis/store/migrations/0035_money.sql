-- Estimates as they were written, what the owner said, what was declined, what parts really cost. Facts of the job.
CREATE TABLE estimate (
    estimate_id uuid PRIMARY KEY,
    job_id      uuid NOT NULL REFERENCES job,
    rate        numeric NOT NULL CHECK (rate >= 0),
    currency    text NOT NULL,
    rounding    text NOT NULL,
    words       text NOT NULL DEFAULT '',
    drawn_at    timestamptz NOT NULL DEFAULT now(),
    drawn_by    uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON estimate (job_id, event);
CREATE TABLE estimate_line (
    job_id      uuid NOT NULL REFERENCES job,
    estimate_id uuid NOT NULL REFERENCES estimate,
    place       integer NOT NULL,
    sheet       text NOT NULL,
    key         text NOT NULL,
    words       text NOT NULL,
    low         numeric NOT NULL CHECK (low >= 0),
    worst       numeric NOT NULL,
    tax_percent numeric NOT NULL CHECK (tax_percent >= 0),
    PRIMARY KEY (estimate_id, place),
    CHECK (worst >= low)
);
CREATE INDEX ON estimate_line (job_id);
CREATE TABLE estimate_answer (
    job_id      uuid NOT NULL REFERENCES job,
    estimate_id uuid NOT NULL REFERENCES estimate,
    answer      text NOT NULL,
    said        text NOT NULL,
    way         text NOT NULL DEFAULT '',
    answered_on date NOT NULL,
    words       text NOT NULL DEFAULT '',
    noted_at    timestamptz NOT NULL DEFAULT now(),
    noted_by    uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON estimate_answer (job_id, event);
CREATE TABLE declined (
    job_id      uuid NOT NULL REFERENCES job,
    what        text NOT NULL,
    reason      text NOT NULL,
    declined_at timestamptz NOT NULL DEFAULT now(),
    declined_by uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON declined (job_id, event);
CREATE TABLE part_cost (
    part_cost_id uuid PRIMARY KEY,
    job_id      uuid NOT NULL REFERENCES job,
    key         text NOT NULL,
    words       text NOT NULL,
    money       numeric NOT NULL CHECK (money >= 0),
    bill        text NOT NULL,
    paid_at     timestamptz NOT NULL DEFAULT now(),
    paid_by     uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON part_cost (job_id, event);
-- What parts cost as a rule, and how the shop reckons: the newest row counts.
CREATE TABLE part_price (
    name        text NOT NULL,
    money       numeric NOT NULL CHECK (money >= 0),
    days        integer NOT NULL CHECK (days >= 0),
    set_at      timestamptz NOT NULL DEFAULT now(),
    set_by      uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE TABLE money_rules (
    tax_percent numeric NOT NULL CHECK (tax_percent >= 0),
    rounding    text NOT NULL,
    returns_percent numeric NOT NULL CHECK (returns_percent >= 0),
    set_at      timestamptz NOT NULL DEFAULT now(),
    set_by      uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number')
);

DO $$
DECLARE
    name text;
BEGIN
    FOREACH name IN ARRAY ARRAY['estimate', 'estimate_line', 'estimate_answer', 'declined', 'part_cost', 'part_price',
                                'money_rules'] LOOP
        EXECUTE format(
            'CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION refuse_change()',
            name);
        EXECUTE format(
            'CREATE TRIGGER never_emptied BEFORE TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()',
            name);
    END LOOP;
END
$$;
