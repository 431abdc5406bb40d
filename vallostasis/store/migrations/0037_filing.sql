-- Jobs put away, off the floor, and brought back; the newest row that stands counts.
CREATE TABLE filing (
    job_id      uuid NOT NULL REFERENCES job,
    away        boolean NOT NULL,
    words       text NOT NULL DEFAULT '',
    filed_at    timestamptz NOT NULL DEFAULT now(),
    filed_by    uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON filing (job_id, event);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON filing FOR EACH ROW EXECUTE FUNCTION refuse_change();
CREATE TRIGGER never_emptied BEFORE TRUNCATE ON filing FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
