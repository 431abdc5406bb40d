-- What one person reads differently from another, beside the scatter of one hand, as a study found it.
ALTER TABLE gauge_version
    ADD COLUMN reproducibility_um       numeric NOT NULL DEFAULT 0 CHECK (reproducibility_um >= 0),
    ADD COLUMN reproducibility_freedom  numeric CHECK (reproducibility_freedom > 0);

-- Taking over a study says how a gauge repeats; it is no calibration.
ALTER TABLE gauge_service DROP CONSTRAINT gauge_service_kind_check;
ALTER TABLE gauge_service
    ADD CHECK (kind IN ('oiled', 'wear found', 'calibrated', 'lent', 'brought back', 'repaired', 'dropped', 'studied'));

-- How warm the shop is taken to be where nobody took a temperature; the newest row holds.
CREATE TABLE room_assumed (
    room_assumed_id  uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    mean_c           numeric NOT NULL CHECK (mean_c BETWEEN -40 AND 60),
    standard_k       numeric NOT NULL CHECK (standard_k BETWEEN 0 AND 40),
    saved_at         timestamptz NOT NULL DEFAULT now(),
    saved_by         uuid NOT NULL REFERENCES person,
    event            bigint NOT NULL DEFAULT nextval('event_number')
);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON room_assumed
    FOR EACH ROW EXECUTE FUNCTION refuse_change();
CREATE TRIGGER never_emptied BEFORE TRUNCATE ON room_assumed
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
