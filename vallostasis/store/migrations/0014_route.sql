-- The route of a job is derived; what leaves no other trace is marked, with who and when. Every row is a fact of a job.
CREATE TABLE operation_mark (
    operation_mark_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    job_id     uuid NOT NULL REFERENCES job,
    operation  text NOT NULL,
    hole_id    uuid REFERENCES hole,
    kind       text NOT NULL,
    words      text NOT NULL DEFAULT '',
    count      int CHECK (count BETWEEN 0 AND 10000),
    done_at    timestamptz NOT NULL,
    marked_at  timestamptz NOT NULL DEFAULT now(),
    marked_by  uuid NOT NULL REFERENCES person,
    event      bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE TABLE clock_mark (
    clock_mark_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    job_id     uuid NOT NULL REFERENCES job,
    operation  text NOT NULL,
    hole_id    uuid REFERENCES hole,
    running    boolean NOT NULL,
    at         timestamptz NOT NULL,
    marked_at  timestamptz NOT NULL DEFAULT now(),
    marked_by  uuid NOT NULL REFERENCES person,
    event      bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE TABLE wait (
    wait_id    uuid PRIMARY KEY,
    job_id     uuid NOT NULL REFERENCES job,
    operation  text NOT NULL,
    hole_id    uuid REFERENCES hole,
    cause      text NOT NULL,
    words      text NOT NULL,
    since      timestamptz NOT NULL,
    expected   date,
    noted_at   timestamptz NOT NULL DEFAULT now(),
    noted_by   uuid NOT NULL REFERENCES person,
    event      bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE TABLE wait_end (
    wait_end_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    job_id     uuid NOT NULL REFERENCES job,
    wait_id    uuid NOT NULL REFERENCES wait,
    ended      timestamptz NOT NULL,
    words      text NOT NULL DEFAULT '',
    noted_at   timestamptz NOT NULL DEFAULT now(),
    noted_by   uuid NOT NULL REFERENCES person,
    event      bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE TABLE hold_pass (
    hold_pass_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    job_id     uuid NOT NULL REFERENCES job,
    hold       text NOT NULL,
    before     text NOT NULL,
    hole_id    uuid REFERENCES hole,
    reason     text NOT NULL CHECK (reason <> ''),
    passed_at  timestamptz NOT NULL DEFAULT now(),
    passed_by  uuid NOT NULL REFERENCES person,
    event      bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE TABLE school_choice (
    school_choice_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    job_id     uuid NOT NULL REFERENCES job,
    question   text NOT NULL,
    side       text NOT NULL,
    reason     text NOT NULL DEFAULT '',
    chosen_at  timestamptz NOT NULL DEFAULT now(),
    chosen_by  uuid NOT NULL REFERENCES person,
    event      bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE TABLE finding (
    finding_id  uuid PRIMARY KEY,
    job_id     uuid NOT NULL REFERENCES job,
    hole_id    uuid REFERENCES hole,
    kind       text NOT NULL,
    part       text NOT NULL DEFAULT '',
    word       text NOT NULL DEFAULT '',
    words      text NOT NULL DEFAULT '',
    figure     numeric,
    typed      text NOT NULL DEFAULT '',
    found_at   timestamptz NOT NULL DEFAULT now(),
    found_by   uuid NOT NULL REFERENCES person,
    event      bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE TABLE waiver (
    waiver_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    job_id     uuid NOT NULL REFERENCES job,
    quantity   text NOT NULL REFERENCES feature,
    part       text NOT NULL,
    waived     boolean NOT NULL,
    reason     text NOT NULL CHECK (reason <> ''),
    waived_at  timestamptz NOT NULL DEFAULT now(),
    waived_by  uuid NOT NULL REFERENCES person,
    event      bigint NOT NULL DEFAULT nextval('event_number')
);
-- What was found can have a note and a photo, as a reading can.
ALTER TABLE reading_note
    ALTER COLUMN reading_id DROP NOT NULL,
    ADD COLUMN finding_id uuid REFERENCES finding,
    ADD CONSTRAINT note_is_on_one CHECK (num_nonnulls(reading_id, finding_id) = 1);
-- The side of each question that the shop follows for jobs it takes in from then on.
CREATE TABLE shop_school (
    shop_school_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    question   text NOT NULL,
    side       text NOT NULL,
    chosen_at  timestamptz NOT NULL DEFAULT now(),
    chosen_by  uuid NOT NULL REFERENCES person,
    event      bigint NOT NULL DEFAULT nextval('event_number')
);

-- What was marked on the fixed stages before and leaves no other trace is carried over.
INSERT INTO operation_mark (job_id, operation, kind, words, done_at, marked_at, marked_by, event)
SELECT s.job_id, o.operation, CASE WHEN m.done THEN 'done' ELSE 'to be done again' END, '', m.marked_at, m.marked_at,
       m.marked_by, m.event
  FROM stage_mark m
  JOIN stage s USING (stage_id)
  JOIN (VALUES ('Strip & measure', 'strip'), ('Decide', 'decide'), ('Prepare', 'clean'), ('Finish', 'release'))
       AS o (name, operation) ON o.name = s.name;
DROP TABLE stage_mark;
DROP TABLE stage;

DO $$
DECLARE
    name text;
BEGIN
    FOREACH name IN ARRAY ARRAY[
        'operation_mark', 'clock_mark', 'wait', 'wait_end', 'hold_pass', 'school_choice', 'finding', 'waiver',
        'shop_school'
    ] LOOP
        IF name <> 'shop_school' THEN
            EXECUTE format('CREATE INDEX ON %I (job_id, event)', name);
        END IF;
        EXECUTE format(
            'CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION refuse_change()',
            name);
        EXECUTE format(
            'CREATE TRIGGER never_emptied BEFORE TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()',
            name);
    END LOOP;
END
$$;
