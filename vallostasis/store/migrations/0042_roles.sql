-- Who may do what. A code says what the device that it lets in may do.
ALTER TABLE pairing_code
    ADD COLUMN role text NOT NULL DEFAULT 'machinist' CHECK (role IN ('owner', 'machinist'));
ALTER TABLE paired_device
    ADD COLUMN role text NOT NULL DEFAULT 'machinist' CHECK (role IN ('owner', 'machinist'));

-- A link with which a customer reads the proof of one job, until a day.
CREATE TABLE reader_link (
    reader_link_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    token_hash      bytea NOT NULL UNIQUE,
    job_id          uuid NOT NULL REFERENCES job,
    name            text NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
    made_at         timestamptz NOT NULL DEFAULT now(),
    expires_at      timestamptz NOT NULL
);
CREATE TABLE reader_link_end (
    reader_link_id  uuid PRIMARY KEY REFERENCES reader_link,
    ended_at        timestamptz NOT NULL DEFAULT now()
);

-- What a person signs in with, as its Argon2 hash; empty where it was taken away. The newest of a person counts.
CREATE TABLE password (
    password_id    bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY,
    person_id      uuid NOT NULL REFERENCES person,
    role           text NOT NULL CHECK (role IN ('owner', 'machinist')),
    password_hash  text NOT NULL CHECK (password_hash = '' OR password_hash LIKE '$argon2id$%'),
    set_at         timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX password_of_person ON password (person_id, password_id DESC);

-- Somebody signed in; it holds no longer than the password that it was opened with.
CREATE TABLE signed_in (
    signed_in_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    token_hash    bytea NOT NULL UNIQUE,
    password_id   bigint NOT NULL REFERENCES password,
    opened_at     timestamptz NOT NULL DEFAULT now(),
    expires_at    timestamptz NOT NULL
);
CREATE TABLE signed_in_end (
    signed_in_id  uuid PRIMARY KEY REFERENCES signed_in,
    ended_at      timestamptz NOT NULL DEFAULT now()
);

-- What else happens at the door.
ALTER TABLE security_event DROP CONSTRAINT security_event_kind_check;
ALTER TABLE security_event ADD CONSTRAINT security_event_kind_check CHECK (kind IN (
    'code made', 'paired', 'wrong code', 'too many codes', 'signed out', 'restored',
    'link made', 'link ended', 'password set', 'password taken away', 'signed in', 'wrong password',
    'too many passwords', 'refused', 'brought in'));

DO $$
DECLARE
    name text;
BEGIN
    FOREACH name IN ARRAY ARRAY['reader_link', 'reader_link_end', 'password', 'signed_in', 'signed_in_end'] LOOP
        EXECUTE format(
            'CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION refuse_change()',
            name);
        EXECUTE format(
            'CREATE TRIGGER never_emptied BEFORE TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()',
            name);
    END LOOP;
END
$$;
