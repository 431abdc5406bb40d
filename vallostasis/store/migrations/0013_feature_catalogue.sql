-- Every feature that is measured is a row; what is known of it stands in core/measuring/features.py.
CREATE TABLE feature (
    quantity  text PRIMARY KEY
);
INSERT INTO feature (quantity)
VALUES ('protrusion'), ('counterbore depth'), ('counterbore diameter'), ('flange thickness'), ('block bore'),
       ('liner outside'), ('liner bore'), ('piston skirt'), ('piston crown'), ('piston clearance'), ('main bore'),
       ('deck flatness'), ('neighbour gap'), ('neighbour step'), ('ring gap'), ('trial fit'), ('levelling'),
       ('set-up indicator');

CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON feature
    FOR EACH ROW EXECUTE FUNCTION refuse_change();
CREATE TRIGGER never_emptied BEFORE TRUNCATE ON feature
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

ALTER TABLE setup DROP CONSTRAINT setup_quantity_check;
ALTER TABLE setup ADD FOREIGN KEY (quantity) REFERENCES feature;
ALTER TABLE unreadable ADD FOREIGN KEY (quantity) REFERENCES feature;
