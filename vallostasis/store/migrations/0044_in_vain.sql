-- What was tried in vain of late is asked before each try: by whichever process is asked.
ALTER TABLE security_event DROP CONSTRAINT security_event_kind_check;
ALTER TABLE security_event ADD CONSTRAINT security_event_kind_check CHECK (kind IN (
    'code made', 'paired', 'wrong code', 'too many codes', 'signed out', 'restored',
    'link made', 'link ended', 'wrong link', 'password set', 'password taken away', 'signed in', 'wrong password',
    'too many passwords', 'refused', 'brought in'));
CREATE INDEX security_event_at ON security_event (at);
