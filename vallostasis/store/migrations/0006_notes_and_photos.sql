-- A note on a reading, with a photo where there is one and the places marked on it. A photo that stayed behind
-- when its job was brought in keeps its name, the digest of its bytes.
CREATE TABLE reading_note (
    note_id       uuid PRIMARY KEY,
    reading_id    uuid NOT NULL REFERENCES reading,
    words         text NOT NULL CHECK (length(words) <= 600),
    photo         bytea CHECK (octet_length(photo) <= 10000000),
    photo_type    text NOT NULL DEFAULT '' CHECK (photo_type IN ('', 'image/jpeg', 'image/png', 'image/webp')),
    photo_sha256  text NOT NULL DEFAULT '' CHECK (photo_sha256 ~ '^([0-9a-f]{64})?$'),
    photo_bytes   int NOT NULL DEFAULT 0,
    marks         jsonb NOT NULL DEFAULT '[]',
    made_at       timestamptz NOT NULL DEFAULT now(),
    made_by       uuid NOT NULL REFERENCES person,
    event         bigint NOT NULL DEFAULT nextval('event_number'),
    CHECK (words <> '' OR photo_sha256 <> ''),
    CHECK ((photo_sha256 = '') = (photo_type = '')),
    CHECK (photo IS NULL OR photo_sha256 = encode(sha256(photo), 'hex'))
);
CREATE INDEX ON reading_note (reading_id, event);

CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON reading_note FOR EACH ROW EXECUTE FUNCTION refuse_change();
CREATE TRIGGER never_emptied BEFORE TRUNCATE ON reading_note FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

-- A note is struck like a reading.
ALTER TABLE strike
    ADD COLUMN note_id uuid REFERENCES reading_note,
    DROP CONSTRAINT strike_check,
    ADD CONSTRAINT strike_check CHECK (num_nonnulls(reading_id, cut_id, fitting_id, note_id) = 1);
