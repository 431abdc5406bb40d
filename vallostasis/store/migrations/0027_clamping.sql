-- How a torque plate or the main caps were tightened, bolt by bolt.
CREATE TABLE tightening (
    tightening_id  uuid PRIMARY KEY,
    job_id         uuid NOT NULL REFERENCES job,
    clamp          text NOT NULL,
    fixture        text NOT NULL DEFAULT '',
    gasket         text NOT NULL DEFAULT '',
    fasteners      text NOT NULL DEFAULT '',
    from_hole      integer CHECK (from_hole >= 1),
    to_hole        integer CHECK (to_hole >= from_hole),
    bolt_order     text NOT NULL CHECK (bolt_order ~ '^[0-9]+( [0-9]+)*$'),
    stages_nm      text NOT NULL CHECK (stages_nm ~ '^[0-9.]+( [0-9.]+)*$'),
    words          text NOT NULL DEFAULT '',
    begun_at       timestamptz NOT NULL DEFAULT now(),
    begun_by       uuid NOT NULL REFERENCES person,
    event          bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON tightening (job_id, event);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON tightening FOR EACH ROW EXECUTE FUNCTION refuse_change();
CREATE TRIGGER never_emptied BEFORE TRUNCATE ON tightening FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

CREATE TABLE bolt_mark (
    bolt_mark_id   uuid PRIMARY KEY,
    job_id         uuid NOT NULL REFERENCES job,
    tightening_id  uuid NOT NULL REFERENCES tightening,
    kind           text NOT NULL,
    turn           integer CHECK (turn >= 1),
    bolt           integer CHECK (bolt >= 1),
    torque_nm      numeric CHECK (torque_nm >= 0),
    words          text NOT NULL DEFAULT '',
    noted_at       timestamptz NOT NULL DEFAULT now(),
    noted_by       uuid NOT NULL REFERENCES person,
    event          bigint NOT NULL DEFAULT nextval('event_number'),
    CONSTRAINT a_bolt_has_its_round CHECK ((kind = 'taken off') = (bolt IS NULL) AND (bolt IS NULL) = (turn IS NULL))
);
CREATE INDEX ON bolt_mark (job_id, event);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON bolt_mark FOR EACH ROW EXECUTE FUNCTION refuse_change();
CREATE TRIGGER never_emptied BEFORE TRUNCATE ON bolt_mark FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

-- Plates, bars, blocks and pads of the shop: what each fits, what was changed on it.
CREATE TABLE fixture (
    fixture_id    uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    name          text NOT NULL CHECK (name <> ''),
    kind          text NOT NULL,
    fits          text NOT NULL DEFAULT '',
    thickness_um  numeric CHECK (thickness_um > 0),
    material      text NOT NULL DEFAULT '',
    changed       text NOT NULL DEFAULT '',
    note          text NOT NULL DEFAULT '',
    saved_at      timestamptz NOT NULL DEFAULT now(),
    saved_by      uuid NOT NULL REFERENCES person,
    event         bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON fixture FOR EACH ROW EXECUTE FUNCTION refuse_change();
CREATE TRIGGER never_emptied BEFORE TRUNCATE ON fixture FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
