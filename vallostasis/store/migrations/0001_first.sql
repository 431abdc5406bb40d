-- The facts of a job. Every table below is append-only: what is wrong is struck or superseded by a
-- row of its own, and the database itself refuses to change or remove a row.

CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    RAISE EXCEPTION '% is append-only: strike or supersede instead of changing', TG_TABLE_NAME
        USING ERRCODE = 'integrity_constraint_violation';
END
$$;

-- One counter for all events, so that "newest" and "since the last cut" never depend on a clock.
CREATE SEQUENCE event_number;

CREATE TABLE person (
    person_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    name       text NOT NULL UNIQUE CHECK (length(name) BETWEEN 1 AND 60),
    added_at   timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE gauge (
    gauge_id   uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    name       text NOT NULL UNIQUE,
    kind       text NOT NULL,
    added_at   timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE gauge_version (
    gauge_version_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    gauge_id          uuid NOT NULL REFERENCES gauge,
    version           int NOT NULL CHECK (version > 0),
    resolution_um     numeric NOT NULL CHECK (resolution_um > 0),
    repeatability_um  numeric NOT NULL CHECK (repeatability_um >= 0),
    tip               text NOT NULL,
    note              text NOT NULL DEFAULT '',
    saved_at          timestamptz NOT NULL DEFAULT now(),
    UNIQUE (gauge_id, version)
);

CREATE TABLE spec_card (
    spec_card_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    added_at      timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE spec_card_version (
    spec_card_version_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    spec_card_id          uuid NOT NULL REFERENCES spec_card,
    version               int NOT NULL CHECK (version > 0),
    card                  jsonb NOT NULL,
    saved_at              timestamptz NOT NULL DEFAULT now(),
    saved_by              uuid NOT NULL REFERENCES person,
    UNIQUE (spec_card_id, version)
);

CREATE TABLE job (
    job_id     uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    number     text NOT NULL UNIQUE CHECK (length(number) BETWEEN 1 AND 30),
    name       text NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
    customer   text NOT NULL DEFAULT '',
    complaint  text NOT NULL DEFAULT '',
    opened_at  timestamptz NOT NULL DEFAULT now()
);

-- Which card version judges the job; the newest row holds.
CREATE TABLE job_card (
    job_card_id           uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    job_id                uuid NOT NULL REFERENCES job,
    spec_card_version_id  uuid NOT NULL REFERENCES spec_card_version,
    chosen_at             timestamptz NOT NULL DEFAULT now(),
    chosen_by             uuid NOT NULL REFERENCES person,
    event                 bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON job_card (job_id, event);

CREATE TABLE stage (
    stage_id       uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    job_id         uuid NOT NULL REFERENCES job,
    place          int NOT NULL,
    name           text NOT NULL,
    planned_hours  numeric NOT NULL CHECK (planned_hours > 0),
    UNIQUE (job_id, place)
);

CREATE TABLE stage_mark (
    stage_mark_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    stage_id       uuid NOT NULL REFERENCES stage,
    done           boolean NOT NULL,
    marked_at      timestamptz NOT NULL DEFAULT now(),
    marked_by      uuid NOT NULL REFERENCES person,
    event          bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON stage_mark (stage_id, event);

CREATE TABLE block (
    block_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    job_id    uuid NOT NULL UNIQUE REFERENCES job,
    serial    text NOT NULL DEFAULT ''
);

CREATE TABLE hole (
    hole_id   uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    block_id  uuid NOT NULL REFERENCES block,
    number    int NOT NULL CHECK (number BETWEEN 1 AND 16),
    bank      text NOT NULL DEFAULT '' CHECK (bank IN ('', 'A', 'B')),
    UNIQUE (block_id, number)
);

CREATE TABLE liner (
    liner_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    job_id    uuid NOT NULL REFERENCES job,
    mark      text NOT NULL CHECK (length(mark) BETWEEN 1 AND 20),
    make      text NOT NULL DEFAULT '',
    batch     text NOT NULL DEFAULT '',
    UNIQUE (job_id, mark)
);

-- A fitting is one liner in one hole with its shims, from going in to coming out.
CREATE TABLE fitting (
    fitting_id  uuid PRIMARY KEY,
    hole_id     uuid NOT NULL REFERENCES hole,
    liner_id    uuid NOT NULL REFERENCES liner,
    fitted_at   timestamptz NOT NULL DEFAULT now(),
    fitted_by   uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON fitting (hole_id, event);

CREATE TABLE fitting_shim (
    fitting_id   uuid NOT NULL REFERENCES fitting,
    place        int NOT NULL,
    nominal_um   numeric NOT NULL CHECK (nominal_um > 0),
    measured_um  numeric CHECK (measured_um > 0),
    typed        text NOT NULL,
    side_up      text NOT NULL CHECK (side_up IN ('bevel down', 'bevel up', 'no bevel')),
    PRIMARY KEY (fitting_id, place)
);

CREATE TABLE cut (
    cut_id          uuid PRIMARY KEY,
    hole_id         uuid NOT NULL REFERENCES hole,
    depth_um        numeric NOT NULL CHECK (depth_um > 0),
    typed           text NOT NULL,
    touch_off_um    numeric NOT NULL CHECK (touch_off_um > 0),
    passes          int NOT NULL CHECK (passes >= 0),
    shim_um         numeric NOT NULL CHECK (shim_um > 0),
    stop_u_um       numeric NOT NULL CHECK (stop_u_um >= 0),
    note            text NOT NULL DEFAULT '',
    cut_at          timestamptz NOT NULL DEFAULT now(),
    cut_by          uuid NOT NULL REFERENCES person,
    event           bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON cut (hole_id, event);

-- A liner comes out because its hole is cut or because another fitting takes its place. When that
-- cause is struck as a mistake, the liner is back in.
CREATE TABLE fitting_out (
    fitting_out_id      uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    fitting_id          uuid NOT NULL REFERENCES fitting,
    because_cut_id      uuid REFERENCES cut,
    because_fitting_id  uuid REFERENCES fitting,
    out_at              timestamptz NOT NULL DEFAULT now(),
    out_by              uuid NOT NULL REFERENCES person,
    event               bigint NOT NULL DEFAULT nextval('event_number'),
    CHECK (num_nonnulls(because_cut_id, because_fitting_id) = 1)
);
CREATE INDEX ON fitting_out (fitting_id);

-- What holds for all readings of a block until it is changed; a change re-opens every hole.
CREATE TABLE setup (
    setup_id             uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    job_id               uuid NOT NULL REFERENCES job,
    quantity             text NOT NULL CHECK (quantity IN ('protrusion', 'counterbore depth', 'flange thickness')),
    gauge_id             uuid NOT NULL REFERENCES gauge,
    land                 text NOT NULL,
    datum                text NOT NULL,
    hold_down            text NOT NULL,
    hold_down_torque_nm  numeric,
    shared_zero          boolean NOT NULL,
    chosen_at            timestamptz NOT NULL DEFAULT now(),
    chosen_by            uuid NOT NULL REFERENCES person,
    event                bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON setup (job_id, event);

-- One pass of readings with one gauge, zero, land, datum, clamp and temperature.
-- Protrusion belongs to a fitting, counterbore depth to the hole since its last cut, flange
-- thickness to the liner.
CREATE TABLE reading_set (
    reading_set_id    uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    job_id            uuid NOT NULL REFERENCES job,
    setup_id          uuid NOT NULL REFERENCES setup,
    gauge_version_id  uuid NOT NULL REFERENCES gauge_version,
    fitting_id        uuid REFERENCES fitting,
    hole_id           uuid REFERENCES hole,
    after_cut_id      uuid REFERENCES cut,
    liner_id          uuid REFERENCES liner,
    part_temp_c       numeric,
    opened_at         timestamptz NOT NULL DEFAULT now(),
    opened_by         uuid NOT NULL REFERENCES person,
    event             bigint NOT NULL DEFAULT nextval('event_number'),
    CHECK (num_nonnulls(fitting_id, hole_id, liner_id) = 1),
    CHECK (after_cut_id IS NULL OR hole_id IS NOT NULL)
);
CREATE INDEX ON reading_set (job_id, event);

-- The client makes the id, so that sending a reading again never doubles it.
CREATE TABLE reading (
    reading_id      uuid PRIMARY KEY,
    reading_set_id  uuid NOT NULL REFERENCES reading_set,
    hour            numeric(4, 2) CHECK (hour > 0 AND hour <= 12),
    value_um        numeric NOT NULL,
    typed           text NOT NULL CHECK (length(typed) BETWEEN 1 AND 60),
    typed_unit      text NOT NULL,
    taken_at        timestamptz NOT NULL DEFAULT now(),
    taken_by        uuid NOT NULL REFERENCES person,
    event           bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON reading (reading_set_id, event);

-- Striking and un-striking are rows; the newest one holds. Cuts and fittings recorded by mistake
-- are struck the same way as readings.
CREATE TABLE strike (
    strike_id   uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    job_id      uuid NOT NULL REFERENCES job,
    reading_id  uuid REFERENCES reading,
    cut_id      uuid REFERENCES cut,
    fitting_id  uuid REFERENCES fitting,
    struck      boolean NOT NULL,
    reason      text NOT NULL,
    made_at     timestamptz NOT NULL DEFAULT now(),
    made_by     uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number'),
    CHECK (num_nonnulls(reading_id, cut_id, fitting_id) = 1)
);
CREATE INDEX ON strike (job_id, event);

-- A zero found moved: value used = reading + correction, its uncertainty shared by the whole set.
CREATE TABLE zero_correction (
    zero_correction_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    reading_set_id      uuid NOT NULL REFERENCES reading_set,
    correction_um       numeric NOT NULL,
    standard_um         numeric NOT NULL CHECK (standard_um >= 0),
    typed               text NOT NULL,
    reason              text NOT NULL,
    made_at             timestamptz NOT NULL DEFAULT now(),
    made_by             uuid NOT NULL REFERENCES person,
    event               bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON zero_correction (reading_set_id, event);

DO $$
DECLARE
    name text;
BEGIN
    FOREACH name IN ARRAY ARRAY[
        'person', 'gauge', 'gauge_version', 'spec_card', 'spec_card_version', 'job', 'job_card',
        'stage', 'stage_mark', 'block', 'hole', 'liner', 'fitting', 'fitting_shim', 'fitting_out',
        'cut', 'setup', 'reading_set', 'reading', 'strike', 'zero_correction'
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
