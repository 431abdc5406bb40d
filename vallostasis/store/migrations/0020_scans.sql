-- A scan of a bore: what its levels hold, and every point it was worked out from.
CREATE TABLE scan (
    scan_id     uuid PRIMARY KEY,
    job_id      uuid NOT NULL REFERENCES job,
    hole_id     uuid NOT NULL REFERENCES hole,
    load        text NOT NULL DEFAULT '',
    instrument  text NOT NULL DEFAULT '',
    file_name   text NOT NULL DEFAULT '',
    layout      text NOT NULL,
    points      int NOT NULL CHECK (points > 0),
    profile     text NOT NULL,
    scanned_at  timestamptz NOT NULL DEFAULT now(),
    scanned_by  uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON scan (job_id, event);
-- Points come by COPY, as many as a million at a time, in blocks of three columns of doubles as they lie in memory, least
-- significant byte first: angle [deg], depth [m], radius [m]. They are read again only to be handed out.
CREATE TABLE scan_block (
    scan_id  uuid NOT NULL,
    place    int NOT NULL,
    points   bytea NOT NULL,
    PRIMARY KEY (scan_id, place)
);
ALTER TABLE scan_block ALTER COLUMN points SET STORAGE EXTERNAL;

-- What a probe touched of deck and bores.
CREATE TABLE probe (
    probe_id    uuid PRIMARY KEY,
    job_id      uuid NOT NULL REFERENCES job,
    instrument  text NOT NULL DEFAULT '',
    file_name   text NOT NULL DEFAULT '',
    points      int NOT NULL CHECK (points > 0),
    profile     text NOT NULL,
    probed_at   timestamptz NOT NULL DEFAULT now(),
    probed_by   uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON probe (job_id, event);

DO $$
DECLARE
    name text;
BEGIN
    FOREACH name IN ARRAY ARRAY['scan', 'scan_block', 'probe'] LOOP
        EXECUTE format(
            'CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION refuse_change()',
            name);
        EXECUTE format(
            'CREATE TRIGGER never_emptied BEFORE TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()',
            name);
    END LOOP;
END
$$;
