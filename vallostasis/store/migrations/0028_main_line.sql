-- The line of the main bores, swept from a bar through all of them.
INSERT INTO feature (quantity) VALUES ('line of the mains');
