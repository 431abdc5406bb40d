-- The price list of the shop: the newest row of a kind counts.
CREATE TABLE shop_price (
    kind      text NOT NULL,
    hours     numeric NOT NULL CHECK (hours >= 0),
    money     numeric CHECK (money >= 0),
    days      numeric NOT NULL CHECK (days >= 0),
    currency  text NOT NULL DEFAULT '',
    set_at    timestamptz NOT NULL DEFAULT now(),
    set_by    uuid NOT NULL REFERENCES person,
    event     bigint NOT NULL DEFAULT nextval('event_number')
);
-- What was decided to be done about a hole that stands too low. A fact of the job.
CREATE TABLE option_choice (
    option_choice_id  uuid PRIMARY KEY,
    job_id     uuid NOT NULL REFERENCES job,
    hole_id    uuid NOT NULL REFERENCES hole,
    option     text NOT NULL,
    reason     text NOT NULL,
    worth      numeric CHECK (worth >= 0),
    chosen_at  timestamptz NOT NULL DEFAULT now(),
    chosen_by  uuid NOT NULL REFERENCES person,
    event      bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON option_choice (job_id, event);

DO $$
DECLARE
    name text;
BEGIN
    FOREACH name IN ARRAY ARRAY['shop_price', 'option_choice'] LOOP
        EXECUTE format(
            'CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION refuse_change()',
            name);
        EXECUTE format(
            'CREATE TRIGGER never_emptied BEFORE TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()',
            name);
    END LOOP;
END
$$;
