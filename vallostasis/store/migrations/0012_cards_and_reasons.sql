-- Why a job is judged by the card of another engine.
ALTER TABLE job_card ADD COLUMN reason text NOT NULL DEFAULT '';

-- A liner is also drawn by itself: nothing is cut yet, and nothing takes its place.
ALTER TABLE fitting_out DROP CONSTRAINT fitting_out_check;
ALTER TABLE fitting_out ADD CONSTRAINT fitting_out_check CHECK (num_nonnulls(because_cut_id, because_fitting_id) <= 1);
