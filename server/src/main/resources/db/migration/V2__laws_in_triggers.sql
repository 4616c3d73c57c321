-- Laws a constraint cannot say. Each message starts with the law, so that the application can tell them apart.
DELIMITER //

-- L8: nothing is written into a locked period, and an entry lies in the month of its date.
CREATE TRIGGER journal_entry_period BEFORE INSERT ON journal_entry FOR EACH ROW
BEGIN
  DECLARE is_locked BOOLEAN;
  IF NEW.month <> DATE_FORMAT(NEW.ledger_date, '%Y-%m') THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L8: an entry lies in the month of its date';
  END IF;
  -- shared, so that no lock of the period can slip in before this entry is committed
  SELECT locked INTO is_locked FROM period WHERE month = NEW.month LOCK IN SHARE MODE;
  IF is_locked THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L8: the period is locked';
  END IF;
END//

-- L2, L9: a settlement moves the open amount in the same statement, and only its own batch may settle what is reserved.
CREATE TRIGGER settlement_reserved BEFORE INSERT ON settlement FOR EACH ROW
BEGIN
  IF NEW.reverses_id IS NULL AND EXISTS (
      SELECT 1 FROM reservation r WHERE r.invoice_id = NEW.invoice_id AND r.batch_id <> COALESCE(NEW.batch_id, 0)) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L9: the invoice is reserved by another batch';
  END IF;
END//
CREATE TRIGGER settlement_moves_open AFTER INSERT ON settlement FOR EACH ROW
BEGIN
  UPDATE invoice
  SET open_minor = open_minor - NEW.amount_minor,
      discount_taken_minor = discount_taken_minor + CASE WHEN NEW.kind = 'DISCOUNT' THEN NEW.amount_minor ELSE 0 END
  WHERE id = NEW.invoice_id;
END//

-- L7: nobody approves what they prepared or changed.
CREATE TRIGGER approval_by_other_hands BEFORE INSERT ON approval FOR EACH ROW
BEGIN
  IF NEW.outcome = 'APPROVED' AND EXISTS (
      SELECT 1 FROM batch_hand h WHERE h.batch_id = NEW.batch_id AND h.person_id = NEW.person_id) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L7: nobody approves what they prepared or changed';
  END IF;
END//

-- L6: a payment comes only from a claim approved, in the round that counts, with exactly the digest it has.
CREATE TRIGGER payment_needs_approval BEFORE INSERT ON payment FOR EACH ROW
BEGIN
  IF NOT EXISTS (
      SELECT 1 FROM claim c
      JOIN batch b ON b.id = c.batch_id
      JOIN approval a ON a.batch_id = b.id AND a.round = b.approval_round AND a.outcome = 'APPROVED'
      JOIN approval_claim ac ON ac.approval_id = a.id AND ac.claim_id = c.id AND ac.digest = c.digest
      WHERE c.id = NEW.claim_id AND c.batch_id = NEW.batch_id AND c.amount_minor = NEW.amount_minor) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L6: the claim is not approved as it stands';
  END IF;
END//

-- Once a payment has left the batch its claim and lines stand still.
CREATE TRIGGER claim_line_stands BEFORE UPDATE ON claim_line FOR EACH ROW
BEGIN
  IF EXISTS (SELECT 1 FROM payment p WHERE p.claim_id = OLD.claim_id) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L4: the claim has its number, its lines stand';
  END IF;
END//
CREATE TRIGGER claim_line_stays BEFORE DELETE ON claim_line FOR EACH ROW
BEGIN
  IF EXISTS (SELECT 1 FROM payment p WHERE p.claim_id = OLD.claim_id) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L4: the claim has its number, its lines stand';
  END IF;
END//

-- A number keeps its name: only its state and what it pays may change.
CREATE TRIGGER check_number_stands BEFORE UPDATE ON check_number FOR EACH ROW
BEGIN
  IF NEW.number <> OLD.number OR NEW.bank_account_id <> OLD.bank_account_id OR NEW.prefix <> OLD.prefix
      OR NEW.stock <> OLD.stock THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L3: a number never changes';
  END IF;
END//

-- What was told to the bank stays what it was; only the answer may change.
CREATE TRIGGER bank_file_stands BEFORE UPDATE ON bank_file FOR EACH ROW
BEGIN
  IF NEW.content_hash <> OLD.content_hash OR NEW.content <> OLD.content OR NEW.serial <> OLD.serial THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L5: a file never changes';
  END IF;
END//
DELIMITER ;
