-- How a hole is honed, the rounds it had, and what was said of each: it is read between two of them.
CREATE TABLE hone_setting (
    setting_id      uuid PRIMARY KEY,
    job_id          uuid NOT NULL REFERENCES job,
    hole_id         uuid NOT NULL REFERENCES hole,
    aim             text NOT NULL,
    method          text NOT NULL,
    drive           text NOT NULL,
    rough_grit      integer NOT NULL CHECK (rough_grit > 0),
    fine_grit       integer NOT NULL CHECK (fine_grit > 0),
    fine_stock_um   numeric NOT NULL CHECK (fine_stock_um >= 0),
    brush_stock_um  numeric NOT NULL CHECK (brush_stock_um >= 0),
    length_um       numeric NOT NULL CHECK (length_um > 0),
    stone_um        numeric NOT NULL CHECK (stone_um > 0),
    below_um        numeric CHECK (below_um >= 0),
    turns           numeric NOT NULL CHECK (turns > 0),
    strokes         numeric NOT NULL CHECK (strokes > 0),
    angle_deg       numeric NOT NULL CHECK (angle_deg > 0),
    words           text NOT NULL DEFAULT '',
    set_at          timestamptz NOT NULL DEFAULT now(),
    set_by          uuid NOT NULL REFERENCES person,
    event           bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON hone_setting (job_id, event);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON hone_setting FOR EACH ROW EXECUTE FUNCTION refuse_change();
CREATE TRIGGER never_emptied BEFORE TRUNCATE ON hone_setting FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

CREATE TABLE hone_round (
    round_id  uuid PRIMARY KEY,
    job_id    uuid NOT NULL REFERENCES job,
    hole_id   uuid NOT NULL REFERENCES hole,
    aim       text NOT NULL,
    stage     text NOT NULL,
    grit      integer NOT NULL CHECK (grit >= 0),
    method    text NOT NULL,
    begun_at  timestamptz NOT NULL DEFAULT now(),
    begun_by  uuid NOT NULL REFERENCES person,
    event     bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE INDEX ON hone_round (job_id, event);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON hone_round FOR EACH ROW EXECUTE FUNCTION refuse_change();
CREATE TRIGGER never_emptied BEFORE TRUNCATE ON hone_round FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

CREATE TABLE hone_mark (
    hone_mark_id  uuid PRIMARY KEY,
    job_id        uuid NOT NULL REFERENCES job,
    round_id      uuid NOT NULL REFERENCES hone_round,
    kind          text NOT NULL,
    strokes       integer CHECK (strokes > 0),
    words         text NOT NULL DEFAULT '',
    noted_at      timestamptz NOT NULL DEFAULT now(),
    noted_by      uuid NOT NULL REFERENCES person,
    event         bigint NOT NULL DEFAULT nextval('event_number'),
    CONSTRAINT a_stop_says_its_strokes CHECK ((kind = 'stopped') = (strokes IS NOT NULL))
);
CREATE INDEX ON hone_mark (job_id, event);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON hone_mark FOR EACH ROW EXECUTE FUNCTION refuse_change();
CREATE TRIGGER never_emptied BEFORE TRUNCATE ON hone_mark FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
