-- Other screens on the shop's network. Only hashes are kept: whoever reads the database gets in with none of them.
CREATE TABLE pairing_code (
    code_hash   bytea PRIMARY KEY,
    made_at     timestamptz NOT NULL DEFAULT now(),
    expires_at  timestamptz NOT NULL
);

-- A code pairs one device: the database refuses it a second time.
CREATE TABLE paired_device (
    paired_device_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    code_hash         bytea NOT NULL UNIQUE REFERENCES pairing_code,
    token_hash        bytea NOT NULL UNIQUE,
    name              text NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
    paired_at         timestamptz NOT NULL DEFAULT now(),
    expires_at        timestamptz NOT NULL
);

CREATE TABLE paired_device_end (
    paired_device_id  uuid PRIMARY KEY REFERENCES paired_device,
    ended_at          timestamptz NOT NULL DEFAULT now()
);

DO $$
DECLARE
    name text;
BEGIN
    FOREACH name IN ARRAY ARRAY['pairing_code', 'paired_device', 'paired_device_end'] LOOP
        EXECUTE format(
            'CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION refuse_change()',
            name);
        EXECUTE format(
            'CREATE TRIGGER never_emptied BEFORE TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()',
            name);
    END LOOP;
END
$$;
