-- At which screen a reading was taken, and whether its gauge sent it; what was recorded before says neither.
ALTER TABLE reading ADD COLUMN device text NOT NULL DEFAULT '';
ALTER TABLE reading ADD COLUMN from_gauge boolean NOT NULL DEFAULT false;
