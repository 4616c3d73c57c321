-- A bank answers a file, or single events of it; it can ask to be told of a whole account anew.
ALTER TABLE bank_file
  -- tells again what was told: on the bank's request, and counted nowhere
  ADD COLUMN anew BOOLEAN NOT NULL DEFAULT FALSE,
  -- which of the waiting events it was narrowed to, in words
  ADD COLUMN narrowed VARCHAR(200) NOT NULL DEFAULT '';
ALTER TABLE bank_file_item
  -- what the bank said of this one; it waits again
  ADD COLUMN refused_why VARCHAR(200);
DELIMITER //
-- L5: an event the bank refused is told no more by that file, and a file that tells anew is none an event stands in.
CREATE TRIGGER event_stands_in_its_file BEFORE UPDATE ON bank_event FOR EACH ROW
BEGIN
  IF NEW.file_id IS NOT NULL AND NOT NEW.file_id <=> OLD.file_id AND EXISTS (
      SELECT 1 FROM bank_file f WHERE f.id = NEW.file_id AND (f.anew OR f.state <> 'MADE')) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L5: an event goes into a file that is being made';
  END IF;
END//
CREATE TRIGGER item_refused_once BEFORE UPDATE ON bank_file_item FOR EACH ROW
BEGIN
  IF OLD.refused_why IS NOT NULL THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L5: what the bank refused stays refused';
  END IF;
END//
DELIMITER ;
GRANT UPDATE (refused_why) ON bank_file_item TO ${appUser};
