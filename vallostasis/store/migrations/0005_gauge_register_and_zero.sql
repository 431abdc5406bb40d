-- What a gauge reads, when it was checked and against what, whose it is and what is wrong with it.
ALTER TABLE gauge_version
    ADD COLUMN range_from_um  numeric,
    ADD COLUMN range_to_um    numeric CHECK (range_to_um > range_from_um),
    ADD COLUMN tip_radius_um  numeric CHECK (tip_radius_um >= 0),
    ADD COLUMN calibrated_on  date,
    ADD COLUMN due_on         date,
    ADD COLUMN owner          text NOT NULL DEFAULT '',
    ADD COLUMN master         text NOT NULL DEFAULT '',
    ADD COLUMN faults         text NOT NULL DEFAULT '',
    ADD CHECK (num_nulls(range_from_um, range_to_um) IN (0, 2));

-- What the gauge was zeroed on: a reading is the deviation from that size.
ALTER TABLE setup
    ADD COLUMN zeroed_on   text NOT NULL DEFAULT 'datum' CHECK (zeroed_on IN
        ('datum', 'setting master', 'micrometer', 'nominal', 'low limit', 'target', 'part itself')),
    ADD COLUMN zero_um     numeric NOT NULL DEFAULT 0,
    ADD COLUMN zero_typed  text NOT NULL DEFAULT '',
    ADD CHECK (zero_um = 0 OR zeroed_on NOT IN ('datum', 'part itself'));
