-- The wall of a bore: how deep it is worn by clock position and level, and how thick it is to the outside.
INSERT INTO feature (quantity) VALUES ('wear step'), ('wall thickness');

-- A reading on a wall stands at a clock position and a level: only an axis or a point of a grid excludes the clock.
DO $$
DECLARE
    old text;
BEGIN
    SELECT conname INTO STRICT old
      FROM pg_constraint
     WHERE conrelid = 'reading'::regclass AND pg_get_constraintdef(oid) LIKE '%hour IS NULL%num_nonnulls%';
    EXECUTE format('ALTER TABLE reading DROP CONSTRAINT %I', old);
END
$$;
ALTER TABLE reading ADD CHECK (hour IS NULL OR num_nonnulls(axis_deg, along_um, across_um) = 0);

-- What is found on a wall reaches from one depth to another, and may catch a nail.
ALTER TABLE finding
    ADD COLUMN from_um   numeric CHECK (from_um >= 0),
    ADD COLUMN until_um  numeric CHECK (until_um >= from_um),
    ADD COLUMN catches   boolean NOT NULL DEFAULT false,
    ADD COLUMN in_round  text NOT NULL DEFAULT '';
