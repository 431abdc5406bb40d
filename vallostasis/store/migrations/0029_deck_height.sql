-- From the line of the main bores to the face of the deck.
INSERT INTO feature (quantity) VALUES ('deck height');
