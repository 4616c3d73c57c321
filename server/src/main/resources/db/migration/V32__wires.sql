-- Wires that are ordered at the bank's site from a list of ours: each under its own reference, and confirmed one by one.
CREATE TABLE wire_order (
  payment_id BIGINT PRIMARY KEY REFERENCES payment (id),
  way_id BIGINT NOT NULL REFERENCES way_to_pay (id),
  reference BIGINT NOT NULL,
  called VARCHAR(20) NOT NULL,
  -- what the list says of it
  currency CHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL CHECK (amount_minor > 0),
  listed_at DATETIME(6) NOT NULL,
  listed_by BIGINT NOT NULL REFERENCES person (id),
  -- what the bank called it, and asked for it, once somebody ordered it there
  bank_reference VARCHAR(35),
  fee_minor BIGINT CHECK (fee_minor >= 0),
  sent_on DATE,
  confirmed_at DATETIME(6),
  confirmed_by BIGINT REFERENCES person (id),
  UNIQUE (way_id, reference),
  UNIQUE (way_id, bank_reference),
  CHECK ((bank_reference IS NULL) = (fee_minor IS NULL) AND (bank_reference IS NULL) = (sent_on IS NULL)
    AND (bank_reference IS NULL) = (confirmed_at IS NULL) AND (bank_reference IS NULL) = (confirmed_by IS NULL))
);

CREATE OR REPLACE VIEW payment_carried AS
  SELECT p.id AS payment_id, p.claim_id, p.batch_id, b.method, b.purpose,
    COALESCE(CONCAT(s.prefix, n.number), i.called, w.bank_reference, w.called, o.number, '') AS number, n.id AS check_id, n.series_id
  FROM payment p JOIN batch b ON b.id = p.batch_id LEFT JOIN check_number n ON n.live_payment_id = p.id
  LEFT JOIN number_series s ON s.id = n.series_id LEFT JOIN electronic_item i ON i.payment_id = p.id
  LEFT JOIN wire_order w ON w.payment_id = p.id LEFT JOIN outside_number o ON o.payment_id = p.id;

DELIMITER //
CREATE TRIGGER wire_of_its_way BEFORE INSERT ON wire_order FOR EACH ROW
BEGIN
  IF NEW.bank_reference IS NOT NULL OR NOT EXISTS (
      SELECT 1 FROM payment p JOIN batch b ON b.id = p.batch_id
      WHERE p.id = NEW.payment_id AND p.state = 'PREPARED' AND b.method = 'WIRE' AND b.purpose <> 'OUTSIDE'
        AND b.way_id = NEW.way_id AND p.amount_minor = NEW.amount_minor AND p.currency = NEW.currency) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L12: the payment is no wire of this way';
  END IF;
  CALL must_be_approved(NEW.payment_id);
END//
-- What was confirmed may be corrected until the ledger has it.
CREATE TRIGGER wire_stands BEFORE UPDATE ON wire_order FOR EACH ROW
BEGIN
  IF NEW.payment_id <> OLD.payment_id OR NEW.way_id <> OLD.way_id OR NEW.reference <> OLD.reference OR NEW.called <> OLD.called
    OR NEW.amount_minor <> OLD.amount_minor OR NEW.currency <> OLD.currency OR NEW.bank_reference IS NULL
    OR NOT EXISTS (SELECT 1 FROM payment p WHERE p.id = NEW.payment_id AND p.state = 'PREPARED' LOCK IN SHARE MODE) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L12: a wire is confirmed until it is in the ledger, and never otherwise';
  END IF;
END//
CREATE TRIGGER wire_is_posted_confirmed BEFORE UPDATE ON payment FOR EACH ROW
BEGIN
  IF (OLD.posted_entry_id IS NULL AND NEW.posted_entry_id IS NOT NULL)
    AND EXISTS (SELECT 1 FROM batch b WHERE b.id = NEW.batch_id AND b.method = 'WIRE' AND b.purpose <> 'OUTSIDE')
    AND NOT EXISTS (SELECT 1 FROM wire_order w WHERE w.payment_id = NEW.id AND w.bank_reference IS NOT NULL) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L12: no bank confirmed this wire yet';
  END IF;
  IF NEW.state = 'TAKEN_OUT' AND OLD.state <> NEW.state
    AND EXISTS (SELECT 1 FROM wire_order w WHERE w.payment_id = NEW.id AND w.bank_reference IS NOT NULL LOCK IN SHARE MODE) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L12: the bank has sent this wire';
  END IF;
END//
DELIMITER ;
GRANT SELECT, INSERT ON wire_order TO ${appUser};
GRANT UPDATE (bank_reference, fee_minor, sent_on, confirmed_at, confirmed_by) ON wire_order TO ${appUser};
