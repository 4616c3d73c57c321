-- Of a file it took in part a bank may not have said yet what becomes of some payments: they are not posted until it does.
ALTER TABLE bank_file_item ADD COLUMN pending BOOLEAN NOT NULL DEFAULT FALSE;
GRANT UPDATE (pending) ON bank_file_item TO ${appUser};
DELIMITER //
CREATE TRIGGER pending_is_not_posted BEFORE UPDATE ON payment FOR EACH ROW
BEGIN
  IF OLD.posted_entry_id IS NULL AND NEW.posted_entry_id IS NOT NULL
    AND EXISTS (SELECT 1 FROM electronic_item i JOIN bank_file_item x ON x.file_id = i.file_id AND x.payment_id = i.payment_id
      WHERE i.payment_id = NEW.id AND x.pending LOCK IN SHARE MODE) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L12: the bank has not said yet what becomes of this payment';
  END IF;
END//
DELIMITER ;
