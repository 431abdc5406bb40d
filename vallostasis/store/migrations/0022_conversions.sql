-- What a conversion has read: registers in line, the pocket of a deck insert, and the insert.
INSERT INTO feature (quantity) VALUES ('register line'), ('deck insert pocket'), ('deck insert outside');
