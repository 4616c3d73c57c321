-- Boxes of numbered stock as they came in and were opened; no two of a series overlap.
CREATE TABLE stock_box (
  id BIGINT PRIMARY KEY,
  series_id BIGINT NOT NULL REFERENCES number_series (id),
  first_number BIGINT NOT NULL,
  last_number BIGINT NOT NULL,
  received_on DATE NOT NULL,
  received_by BIGINT NOT NULL REFERENCES person (id),
  opened_on DATE,
  opened_by BIGINT REFERENCES person (id),
  CONSTRAINT box_goes_up CHECK (last_number >= first_number AND first_number > 0),
  CONSTRAINT opened_by_somebody CHECK ((opened_on IS NULL) = (opened_by IS NULL)),
  UNIQUE (series_id, first_number)
);
DELIMITER //
CREATE TRIGGER boxes_lie_apart BEFORE INSERT ON stock_box FOR EACH ROW
BEGIN
  IF EXISTS (SELECT 1 FROM stock_box b WHERE b.series_id = NEW.series_id AND b.first_number <= NEW.last_number
      AND NEW.first_number <= b.last_number) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L3: a number lies in one box';
  END IF;
END//
CREATE TRIGGER a_box_stands BEFORE UPDATE ON stock_box FOR EACH ROW
BEGIN
  IF OLD.opened_on IS NOT NULL THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'a box is opened once';
  END IF;
END//
DELIMITER ;
GRANT SELECT, INSERT ON stock_box TO ${appUser};
GRANT UPDATE (opened_on, opened_by) ON stock_box TO ${appUser};
