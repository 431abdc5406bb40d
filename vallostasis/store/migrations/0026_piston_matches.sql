-- Which piston runs in which hole: the mark on the part, which way it faces, new or used, how its pin is held.
CREATE TABLE piston_match (
    match_id    uuid PRIMARY KEY,
    job_id      uuid NOT NULL REFERENCES job,
    hole_id     uuid NOT NULL REFERENCES hole,
    mark        text NOT NULL CHECK (mark <> ''),
    faces       text NOT NULL DEFAULT '',
    run         text NOT NULL,
    pin         text NOT NULL,
    words       text NOT NULL DEFAULT '',
    matched_at  timestamptz NOT NULL DEFAULT now(),
    matched_by  uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON piston_match (job_id, event);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON piston_match FOR EACH ROW EXECUTE FUNCTION refuse_change();
CREATE TRIGGER never_emptied BEFORE TRUNCATE ON piston_match FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
