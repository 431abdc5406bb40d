-- Jobs that came from files, proofs that went out, and the chain over everything recorded about a job.
CREATE TABLE brought_in (
    job_id      uuid NOT NULL REFERENCES job,
    file_name   text NOT NULL,
    sha256      text NOT NULL CHECK (sha256 ~ '^[0-9a-f]{64}$'),
    as_copy     boolean NOT NULL,
    words       text NOT NULL DEFAULT '',
    brought_at  timestamptz NOT NULL DEFAULT now(),
    brought_by  uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON brought_in (job_id, event);

CREATE TABLE printing (
    job_id      uuid NOT NULL REFERENCES job,
    sha256      text NOT NULL CHECK (sha256 ~ '^[0-9a-f]{64}$'),
    entries     int NOT NULL CHECK (entries >= 0),
    head        text NOT NULL CHECK (head ~ '^[0-9a-f]{64}$'),
    printed_at  timestamptz NOT NULL DEFAULT now(),
    printed_by  uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON printing (job_id, event);
CREATE INDEX ON printing (sha256);

-- One link for each entry of a job, in order: what it holds, chained to the link before.
CREATE TABLE chain_link (
    job_id      uuid NOT NULL REFERENCES job,
    entry       int NOT NULL CHECK (entry >= 0),
    sha256      text NOT NULL CHECK (sha256 ~ '^[0-9a-f]{64}$'),
    linked_at   timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (job_id, entry)
);
CREATE INDEX ON chain_link (sha256);

CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON brought_in FOR EACH ROW EXECUTE FUNCTION refuse_change();
CREATE TRIGGER never_emptied BEFORE TRUNCATE ON brought_in FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON printing FOR EACH ROW EXECUTE FUNCTION refuse_change();
CREATE TRIGGER never_emptied BEFORE TRUNCATE ON printing FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON chain_link FOR EACH ROW EXECUTE FUNCTION refuse_change();
CREATE TRIGGER never_emptied BEFORE TRUNCATE ON chain_link FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
