-- Every feature of the job is measured: bores, liners, pistons, mains, decks, gaps; what gauges are set on, how
-- warm things are, and how good a gauge is in the hands that use it.

-- Rings and blocks that gauges are set on. Whatever changes about one is a new version.
CREATE TABLE setting_master (
    setting_master_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    name               text NOT NULL UNIQUE CHECK (length(name) BETWEEN 1 AND 60),
    added_at           timestamptz NOT NULL DEFAULT now()
);
CREATE TABLE setting_master_version (
    setting_master_version_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    setting_master_id          uuid NOT NULL REFERENCES setting_master,
    version                    int NOT NULL CHECK (version > 0),
    size_um                    numeric NOT NULL CHECK (size_um > 0),
    typed                      text NOT NULL,
    standard_um                numeric NOT NULL CHECK (standard_um >= 0),
    material                   text NOT NULL,
    calibrated_on              date,
    due_on                     date,
    owner                      text NOT NULL DEFAULT '',
    note                       text NOT NULL DEFAULT '',
    saved_at                   timestamptz NOT NULL DEFAULT now(),
    UNIQUE (setting_master_id, version)
);

-- A master read with a gauge, here or in another shop: what gauges of different owners are compared over.
CREATE TABLE master_reading (
    master_reading_id          uuid PRIMARY KEY,
    setting_master_version_id  uuid NOT NULL REFERENCES setting_master_version,
    gauge_version_id           uuid NOT NULL REFERENCES gauge_version,
    shop                       text NOT NULL DEFAULT '' CHECK (length(shop) <= 60),
    value_um                   numeric NOT NULL,
    typed                      text NOT NULL CHECK (length(typed) BETWEEN 1 AND 60),
    taken_at                   timestamptz NOT NULL DEFAULT now(),
    taken_by                   uuid NOT NULL REFERENCES person,
    event                      bigint NOT NULL DEFAULT nextval('event_number')
);

-- Thermometers that talk: where, how their lines are written, and on what they lie. The newest row of a name holds.
CREATE TABLE thermometer (
    thermometer_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    name            text NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
    lies_on         text NOT NULL CHECK (lies_on IN ('part', 'room')),
    url             text NOT NULL,
    line_pattern    text NOT NULL,
    simulated       boolean NOT NULL,
    saved_at        timestamptz NOT NULL DEFAULT now(),
    event           bigint NOT NULL DEFAULT nextval('event_number')
);

-- How materials expand and how warm they may get; the newest row of a name holds, before what is built in.
CREATE TABLE material (
    material_id    uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    name           text NOT NULL CHECK (length(name) BETWEEN 1 AND 40),
    alpha_per_k    numeric NOT NULL CHECK (alpha_per_k BETWEEN 0 AND 0.001),
    hottest_c      numeric,
    source         text NOT NULL DEFAULT '',
    saved_at       timestamptz NOT NULL DEFAULT now(),
    saved_by       uuid NOT NULL REFERENCES person,
    event          bigint NOT NULL DEFAULT nextval('event_number')
);

-- What was done to a gauge: oiled, worn, calibrated, lent, brought back, repaired.
CREATE TABLE gauge_service (
    gauge_service_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    gauge_id          uuid NOT NULL REFERENCES gauge,
    kind              text NOT NULL CHECK (kind IN
        ('oiled', 'wear found', 'calibrated', 'lent', 'brought back', 'repaired', 'dropped')),
    words             text NOT NULL DEFAULT '',
    done_on           date NOT NULL,
    noted_at          timestamptz NOT NULL DEFAULT now(),
    noted_by          uuid NOT NULL REFERENCES person,
    event             bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON gauge_service (gauge_id, event);

-- A study of a gauge: parts read blind by several people several times. The newest reading of a cell holds.
CREATE TABLE gauge_study (
    gauge_study_id    uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    gauge_id          uuid NOT NULL REFERENCES gauge,
    gauge_version_id  uuid NOT NULL REFERENCES gauge_version,
    what              text NOT NULL CHECK (length(what) BETWEEN 1 AND 120),
    tolerance_um      numeric CHECK (tolerance_um > 0),
    tolerance_typed   text NOT NULL DEFAULT '',
    parts             int NOT NULL CHECK (parts BETWEEN 2 AND 20),
    trials            int NOT NULL CHECK (trials BETWEEN 2 AND 10),
    seed              int NOT NULL,
    planned_at        timestamptz NOT NULL DEFAULT now(),
    planned_by        uuid NOT NULL REFERENCES person,
    event             bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE TABLE gauge_study_person (
    gauge_study_id  uuid NOT NULL REFERENCES gauge_study,
    place           int NOT NULL CHECK (place >= 0),
    person_id       uuid NOT NULL REFERENCES person,
    PRIMARY KEY (gauge_study_id, place),
    UNIQUE (gauge_study_id, person_id)
);
CREATE TABLE gauge_study_reading (
    gauge_study_reading_id  uuid PRIMARY KEY,
    gauge_study_id          uuid NOT NULL REFERENCES gauge_study,
    part                    int NOT NULL CHECK (part >= 0),
    place                   int NOT NULL,
    trial                   int NOT NULL CHECK (trial >= 0),
    value_um                numeric NOT NULL,
    typed                   text NOT NULL CHECK (length(typed) BETWEEN 1 AND 60),
    typed_unit              text NOT NULL,
    taken_at                timestamptz NOT NULL DEFAULT now(),
    event                   bigint NOT NULL DEFAULT nextval('event_number'),
    FOREIGN KEY (gauge_study_id, place) REFERENCES gauge_study_person
);
CREATE INDEX ON gauge_study_reading (gauge_study_id, event);

-- From how many repeats a repeatability is known, and the study that found it.
ALTER TABLE gauge_version
    ADD COLUMN repeatability_freedom  int CHECK (repeatability_freedom > 0),
    ADD COLUMN gauge_study_id         uuid REFERENCES gauge_study;

ALTER TABLE setup DROP CONSTRAINT setup_quantity_check;
ALTER TABLE setup
    ADD CHECK (quantity IN ('protrusion', 'counterbore depth', 'counterbore diameter', 'flange thickness',
        'block bore', 'liner outside', 'liner bore', 'piston skirt', 'piston crown', 'main bore', 'deck flatness',
        'neighbour gap', 'neighbour step', 'ring gap', 'trial fit', 'levelling', 'set-up indicator')),
    -- Caps torqued, plate on, free; dry or oiled; the method where there is more than one.
    ADD COLUMN load                       text NOT NULL DEFAULT '',
    ADD COLUMN method                     text NOT NULL DEFAULT '',
    ADD COLUMN setting_master_version_id  uuid REFERENCES setting_master_version,
    ADD COLUMN master_temp_c              numeric,
    ADD COLUMN gauge_temp_c               numeric;

-- Pistons, mains, decks and gaps are parts by name.
ALTER TABLE reading_set DROP CONSTRAINT reading_set_check;
ALTER TABLE reading_set
    ADD COLUMN part  text NOT NULL DEFAULT '' CHECK (length(part) <= 40),
    ADD CHECK (num_nonnulls(fitting_id, hole_id, liner_id) = 1
               OR (num_nonnulls(fitting_id, hole_id, liner_id) = 0 AND part <> ''));

-- A reading stands at a clock position, at a level and axis, at a point of a grid, or nowhere in particular.
ALTER TABLE reading
    ADD COLUMN level_um   numeric,
    ADD COLUMN axis_deg   numeric(6, 2) CHECK (axis_deg >= 0 AND axis_deg < 180),
    ADD COLUMN along_um   numeric,
    ADD COLUMN across_um  numeric,
    ADD CHECK (hour IS NULL OR num_nonnulls(level_um, axis_deg, along_um, across_um) = 0),
    ADD CHECK (num_nulls(along_um, across_um) IN (0, 2));

ALTER TABLE unreadable
    ALTER COLUMN fitting_id DROP NOT NULL,
    ALTER COLUMN hour DROP NOT NULL,
    ADD COLUMN quantity   text NOT NULL DEFAULT 'protrusion',
    ADD COLUMN hole_id    uuid REFERENCES hole,
    ADD COLUMN liner_id   uuid REFERENCES liner,
    ADD COLUMN part       text NOT NULL DEFAULT '',
    ADD COLUMN level_um   numeric,
    ADD COLUMN axis_deg   numeric(6, 2),
    ADD COLUMN along_um   numeric,
    ADD COLUMN across_um  numeric;

-- The zero looked at again on what it was set on: moved by so much, or not at all.
CREATE TABLE zero_check (
    zero_check_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    job_id         uuid NOT NULL REFERENCES job,
    setup_id       uuid NOT NULL REFERENCES setup,
    moved_um       numeric NOT NULL,
    typed          text NOT NULL,
    checked_at     timestamptz NOT NULL DEFAULT now(),
    checked_by     uuid NOT NULL REFERENCES person,
    event          bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON zero_check (job_id, event);

-- A correction that follows from a check holds only for what was read between two checks.
ALTER TABLE zero_correction
    ADD COLUMN after_event  bigint,
    ADD COLUMN until_event  bigint,
    ADD CHECK (num_nulls(after_event, until_event) IN (0, 2));

-- How warm a part, the gauge, the master or the room is.
CREATE TABLE temperature (
    temperature_id  uuid PRIMARY KEY,
    job_id          uuid NOT NULL REFERENCES job,
    body            text NOT NULL CHECK (body IN ('part', 'gauge', 'master', 'room')),
    part            text NOT NULL DEFAULT '' CHECK (length(part) <= 40),
    celsius         numeric NOT NULL CHECK (celsius BETWEEN -200 AND 400),
    typed           text NOT NULL CHECK (length(typed) BETWEEN 1 AND 60),
    taken_at        timestamptz NOT NULL DEFAULT clock_timestamp(),
    taken_by        uuid NOT NULL REFERENCES person,
    event           bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON temperature (job_id, event);

-- Class letters stamped on a block bore, grade letters on a liner or piston; the newest row of a part holds.
CREATE TABLE stamp (
    stamp_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    job_id    uuid NOT NULL REFERENCES job,
    part      text NOT NULL CHECK (length(part) BETWEEN 1 AND 40),
    letters   text NOT NULL CHECK (length(letters) <= 20),
    made_at   timestamptz NOT NULL DEFAULT now(),
    made_by   uuid NOT NULL REFERENCES person,
    event     bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON stamp (job_id, event);

ALTER TABLE strike
    ADD COLUMN temperature_id uuid REFERENCES temperature,
    DROP CONSTRAINT strike_check,
    ADD CONSTRAINT strike_check
        CHECK (num_nonnulls(reading_id, cut_id, fitting_id, note_id, temperature_id) = 1);

DO $$
DECLARE
    name text;
BEGIN
    FOREACH name IN ARRAY ARRAY[
        'setting_master', 'setting_master_version', 'gauge_service', 'gauge_study', 'gauge_study_person',
        'gauge_study_reading', 'zero_check', 'temperature', 'stamp', 'master_reading', 'material', 'thermometer'
    ] LOOP
        EXECUTE format(
            'CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION refuse_change()',
            name);
        EXECUTE format(
            'CREATE TRIGGER never_emptied BEFORE TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()',
            name);
    END LOOP;
END
$$;
