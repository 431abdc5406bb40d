-- Everything recorded about a job can be struck: what has no column of its own in a strike is named by its event.
ALTER TABLE strike
    ADD COLUMN of_event  bigint,
    -- Made by Undo: taking back is not itself taken back.
    ADD COLUMN undoes    boolean NOT NULL DEFAULT false,
    DROP CONSTRAINT strike_check,
    ADD CONSTRAINT strike_check
        CHECK (num_nonnulls(reading_id, cut_id, fitting_id, note_id, temperature_id, of_event) = 1);

-- When a reading was written down, beside when it was taken: what one step recorded bears one time.
ALTER TABLE reading ADD COLUMN recorded_at timestamptz;
ALTER TABLE reading ALTER COLUMN recorded_at SET DEFAULT now();

-- Whether what was recorded with that event is struck now.
CREATE FUNCTION is_struck(of_job uuid, that_event bigint) RETURNS boolean LANGUAGE sql STABLE AS $$
    SELECT coalesce((SELECT struck
                       FROM strike
                      WHERE job_id = of_job AND of_event = that_event
                      ORDER BY event DESC LIMIT 1), false)
$$;

-- A set-up whose temperatures were noted wrongly is put right for what was read under it, without a new set.
ALTER TABLE setup ADD COLUMN corrects uuid REFERENCES setup;
