-- The gap beside a piston in its bore is read by feeler: a length of its own, not a size of the skirt.
ALTER TABLE setup DROP CONSTRAINT setup_quantity_check;
ALTER TABLE setup
    ADD CHECK (quantity IN ('protrusion', 'counterbore depth', 'counterbore diameter', 'flange thickness',
        'block bore', 'liner outside', 'liner bore', 'piston skirt', 'piston crown', 'piston clearance', 'main bore',
        'deck flatness', 'neighbour gap', 'neighbour step', 'ring gap', 'trial fit', 'levelling',
        'set-up indicator'));
