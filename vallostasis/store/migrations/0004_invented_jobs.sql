-- A job to try things on: every figure of it is made up, and its papers say so.
ALTER TABLE job ADD COLUMN invented boolean NOT NULL DEFAULT false;
