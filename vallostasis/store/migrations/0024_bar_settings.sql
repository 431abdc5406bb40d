-- How a bar was set in a hole before anything was cut: feeler gaps at four clock positions, the next hole.
CREATE TABLE bar_setting (
    setting_id  uuid PRIMARY KEY,
    job_id      uuid NOT NULL REFERENCES job,
    hole_id     uuid NOT NULL REFERENCES hole,
    datum       text NOT NULL,
    gap_12_um   numeric CHECK (gap_12_um >= 0),
    gap_3_um    numeric CHECK (gap_3_um >= 0),
    gap_6_um    numeric CHECK (gap_6_um >= 0),
    gap_9_um    numeric CHECK (gap_9_um >= 0),
    to_hole     integer,
    apart_um    numeric CHECK (apart_um > 0),
    level       text NOT NULL DEFAULT '',
    not_to_cut  text NOT NULL DEFAULT '',
    words       text NOT NULL DEFAULT '',
    set_at      timestamptz NOT NULL DEFAULT now(),
    set_by      uuid NOT NULL REFERENCES person,
    event       bigint NOT NULL DEFAULT nextval('event_number'),
    CONSTRAINT all_gaps_or_none CHECK (num_nonnulls(gap_12_um, gap_3_um, gap_6_um, gap_9_um) IN (0, 4)),
    CONSTRAINT a_distance_is_to_a_hole CHECK ((apart_um IS NULL) = (to_hole IS NULL))
);
CREATE INDEX ON bar_setting (job_id, event);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON bar_setting FOR EACH ROW EXECUTE FUNCTION refuse_change();
CREATE TRIGGER never_emptied BEFORE TRUNCATE ON bar_setting FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
