-- Who got in, who was sent away, and what was brought back: kept as facts are.
CREATE TABLE security_event (
    kind      text NOT NULL CHECK (kind IN ('code made', 'paired', 'wrong code', 'too many codes', 'signed out',
                                            'restored')),
    words     text NOT NULL CHECK (length(words) <= 200),
    address   text NOT NULL DEFAULT '',
    at        timestamptz NOT NULL DEFAULT now(),
    event     bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY
);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON security_event FOR EACH ROW EXECUTE FUNCTION refuse_change();
CREATE TRIGGER never_emptied BEFORE TRUNCATE ON security_event FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
