-- Passes of a boring bar, each as it was made: the dial a side, the diameter that was read after it.
CREATE TABLE boring_pass (
    pass_id      uuid PRIMARY KEY,
    job_id       uuid NOT NULL REFERENCES job,
    hole_id      uuid NOT NULL REFERENCES hole,
    kind         text NOT NULL,
    dial_um      numeric NOT NULL CHECK (dial_um >= 0),
    dial_typed   text NOT NULL,
    diameter_um  numeric CHECK (diameter_um > 0),
    typed        text NOT NULL DEFAULT '',
    at_um        numeric CHECK (at_um >= 0),
    minutes      numeric CHECK (minutes > 0),
    words        text NOT NULL DEFAULT '',
    passed_at    timestamptz NOT NULL DEFAULT now(),
    passed_by    uuid NOT NULL REFERENCES person,
    event        bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON boring_pass (job_id, event);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON boring_pass FOR EACH ROW EXECUTE FUNCTION refuse_change();
CREATE TRIGGER never_emptied BEFORE TRUNCATE ON boring_pass FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
