-- Several shops may share a database, each in a schema of its own. Whoever knows the name of a channel hears on it:
-- each shop has one that nobody guesses.
CREATE TABLE change_channel (
    channel  text PRIMARY KEY
);
INSERT INTO change_channel (channel) SELECT 'vallo_' || replace(gen_random_uuid()::text, '-', '');
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON change_channel FOR EACH ROW EXECUTE FUNCTION refuse_change();
CREATE TRIGGER never_emptied BEFORE TRUNCATE ON change_channel FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
