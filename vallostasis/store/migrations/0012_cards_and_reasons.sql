
-- Why a job is judged by the card of another engine.
ALTER TABLE job_card ADD COLUMN reason text NOT NULL DEFAULT '';
