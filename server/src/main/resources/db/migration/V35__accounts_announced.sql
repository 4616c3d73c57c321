-- Accounts announced to their banks by entries of nothing, where a bank wants that before money goes there.
CREATE TABLE announcement (
  id BIGINT PRIMARY KEY,
  way_id BIGINT NOT NULL REFERENCES electronic_way (way_id),
  file_id BIGINT NOT NULL REFERENCES bank_file (id),
  -- the approved batch it was made for
  batch_id BIGINT NOT NULL REFERENCES batch (id),
  remit_to_id BIGINT NOT NULL REFERENCES remit_to (id),
  bank_key VARCHAR(64) NOT NULL CHECK (bank_key <> ''),
  called VARCHAR(15) NOT NULL,
  sequence INT NOT NULL,
  -- what the payee's bank said against it
  sent_back VARCHAR(200) NOT NULL DEFAULT '',
  UNIQUE (file_id, bank_key),
  INDEX (way_id, bank_key),
  INDEX (sequence)
);
DELIMITER //
CREATE TRIGGER announcement_in_its_file BEFORE INSERT ON announcement FOR EACH ROW
BEGIN
  IF NOT EXISTS (SELECT 1 FROM bank_file f WHERE f.id = NEW.file_id AND f.way_id = NEW.way_id AND f.state = 'MADE' AND f.items = 0)
    OR NOT EXISTS (SELECT 1 FROM batch b WHERE b.id = NEW.batch_id AND b.way_id = NEW.way_id AND b.state IN ('APPROVED', 'FILED'))
  THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L6: an account is announced for an approved batch, in a file that pays nothing';
  END IF;
END//
DELIMITER ;
GRANT SELECT, INSERT ON announcement TO ${appUser};
GRANT UPDATE (sent_back) ON announcement TO ${appUser};
