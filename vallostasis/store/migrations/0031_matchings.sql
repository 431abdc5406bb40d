-- Who goes where as somebody chose it: a row for each hole, all of one matching under one id.
CREATE TABLE matched_place (
    matching_id  uuid NOT NULL,
    job_id       uuid NOT NULL REFERENCES job,
    hole_id      uuid NOT NULL REFERENCES hole,
    liner_id     uuid NOT NULL REFERENCES liner,
    shim_um      numeric CHECK (shim_um > 0),
    chosen_at    timestamptz NOT NULL DEFAULT now(),
    chosen_by    uuid NOT NULL REFERENCES person,
    event        bigint NOT NULL DEFAULT nextval('event_number'),
    PRIMARY KEY (matching_id, hole_id)
);
CREATE INDEX ON matched_place (job_id, event);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON matched_place FOR EACH ROW EXECUTE FUNCTION refuse_change();
CREATE TRIGGER never_emptied BEFORE TRUNCATE ON matched_place FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
