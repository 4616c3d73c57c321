-- Payments that left the house before they were written down: hand-written checks, wires, payments by company card.

-- ------------------------------------------------------------ ways that are only recorded, and the card
ALTER TABLE way_to_pay
  -- what is paid this way is made elsewhere and recorded here
  ADD COLUMN recorded_only BOOLEAN NOT NULL DEFAULT FALSE,
  -- of a company card: the account of what is owed to its issuer, and the issuer as a vendor
  ADD COLUMN owed_account_id BIGINT REFERENCES ledger_account (id),
  ADD COLUMN issuer_id BIGINT REFERENCES vendor (id),
  ADD CONSTRAINT card_owes_its_issuer CHECK (
    (method = 'CARD') = (owed_account_id IS NOT NULL) AND (method = 'CARD') = (issuer_id IS NOT NULL)),
  ADD CONSTRAINT card_is_recorded CHECK (recorded_only OR method <> 'CARD');
-- What a payment of each way credits.
CREATE VIEW paid_from AS
  SELECT w.id AS way_id, COALESCE(w.owed_account_id, a.cash_account_id) AS account_id
  FROM way_to_pay w JOIN bank_account a ON a.id = w.bank_account_id;
DROP TRIGGER way_stands;
CREATE OR REPLACE VIEW series_of_account AS
  SELECT s.id, s.way_id, w.bank_account_id, w.name AS way_name, a.name AS account_name, a.currency, a.positive_pay,
    s.first_number, s.next_number, a.position * 1000 + w.position AS place, s.prefix, s.stock
  FROM number_series s JOIN way_to_pay w ON w.id = s.way_id JOIN bank_account a ON a.id = w.bank_account_id;

-- ------------------------------------------------------------ numbers that somebody wrote
ALTER TABLE check_number DROP CONSTRAINT states_of_paper;
ALTER TABLE check_number DROP COLUMN live_payment_id;
ALTER TABLE check_number
  ADD COLUMN live_payment_id BIGINT AS (CASE WHEN state IN ('TAKEN', 'PRINTED', 'WRITTEN') THEN payment_id END)
    PERSISTENT UNIQUE,
  ADD CONSTRAINT states_of_paper CHECK (state IN ('TAKEN', 'PRINTED', 'WRITTEN', 'SPOILED', 'UNACCOUNTED'));

-- What was typed for a claim of a batch of payments made elsewhere.
CREATE TABLE outside_entry (
  claim_id BIGINT PRIMARY KEY REFERENCES claim (id) ON DELETE CASCADE,
  number VARCHAR(40) NOT NULL CHECK (number <> ''),
  -- what it was for, in the words of whoever recorded it
  said VARCHAR(300) NOT NULL
);
-- The number a posted payment carries that is no check.
CREATE TABLE outside_number (
  payment_id BIGINT PRIMARY KEY REFERENCES payment (id),
  way_id BIGINT NOT NULL REFERENCES way_to_pay (id),
  number VARCHAR(40) NOT NULL CHECK (number <> ''),
  CONSTRAINT l3_once_elsewhere UNIQUE (way_id, number)
);
-- Payments by company card that stand on a statement of the card's issuer.
CREATE TABLE card_match (
  payment_id BIGINT PRIMARY KEY REFERENCES payment (id),
  invoice_id BIGINT NOT NULL REFERENCES invoice (id),
  matched_at DATETIME(6) NOT NULL,
  matched_by BIGINT NOT NULL REFERENCES person (id),
  INDEX (invoice_id)
);

DELIMITER //
CREATE TRIGGER way_stands BEFORE UPDATE ON way_to_pay FOR EACH ROW
BEGIN
  IF NEW.bank_account_id <> OLD.bank_account_id OR NEW.method <> OLD.method OR NEW.recorded_only <> OLD.recorded_only
    OR NOT NEW.owed_account_id <=> OLD.owed_account_id OR NOT NEW.issuer_id <=> OLD.issuer_id THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L12: what carries a payment stands';
  END IF;
END//
-- L12: what left the house by hand is never printed, and what is printed was not written by hand.
CREATE PROCEDURE must_be_carried_so(IN paying BIGINT, IN written BOOLEAN)
BEGIN
  IF NOT EXISTS (SELECT 1 FROM payment p JOIN batch b ON b.id = p.batch_id
      WHERE p.id = paying AND (b.purpose = 'OUTSIDE') = written) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L12: a payment made elsewhere is written down, never printed';
  END IF;
END//
CREATE TRIGGER number_is_carried BEFORE INSERT ON check_number FOR EACH ROW
BEGIN
  IF NEW.payment_id IS NOT NULL THEN
    CALL must_be_carried_so(NEW.payment_id, NEW.state = 'WRITTEN');
  END IF;
END//
CREATE TRIGGER number_stays_carried BEFORE UPDATE ON check_number FOR EACH ROW
BEGIN
  IF NEW.state IN ('TAKEN', 'PRINTED', 'WRITTEN') AND NEW.state <> OLD.state THEN
    CALL must_be_carried_so(NEW.payment_id, NEW.state = 'WRITTEN');
  END IF;
END//
CREATE TRIGGER outside_entry_of_its_batch BEFORE INSERT ON outside_entry FOR EACH ROW
BEGIN
  IF NOT EXISTS (SELECT 1 FROM claim c JOIN batch b ON b.id = c.batch_id
      WHERE c.id = NEW.claim_id AND b.purpose = 'OUTSIDE' AND b.state = 'DRAFT') THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L6: what was recorded is written in the draft of its batch';
  END IF;
END//
CREATE TRIGGER outside_number_of_its_way BEFORE INSERT ON outside_number FOR EACH ROW
BEGIN
  IF NOT EXISTS (SELECT 1 FROM payment p JOIN batch b ON b.id = p.batch_id
      WHERE p.id = NEW.payment_id AND b.purpose = 'OUTSIDE' AND b.way_id = NEW.way_id AND b.method <> 'CHECK') THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L12: the payment goes another way than this number';
  END IF;
  CALL must_be_approved(NEW.payment_id);
END//
CREATE TRIGGER card_match_of_its_issuer BEFORE INSERT ON card_match FOR EACH ROW
BEGIN
  IF NOT EXISTS (SELECT 1 FROM payment p JOIN batch b ON b.id = p.batch_id JOIN way_to_pay w ON w.id = b.way_id
      JOIN invoice i ON i.vendor_id = w.issuer_id AND i.currency = p.currency
      WHERE p.id = NEW.payment_id AND i.id = NEW.invoice_id AND i.kind = 'INVOICE'
        AND p.posted_entry_id IS NOT NULL AND p.undone_entry_id IS NULL) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L4: a statement is matched to payments by its card';
  END IF;
END//
-- A statement that is cancelled bills nothing: its payments stand on none again.
CREATE TRIGGER cancelled_statement_bills_nothing AFTER UPDATE ON invoice FOR EACH ROW
BEGIN
  IF NEW.cancelled_on IS NOT NULL AND OLD.cancelled_on IS NULL THEN
    DELETE FROM card_match WHERE invoice_id = NEW.id;
  END IF;
END//
-- A payment by card is not undone while it is matched: the match loses the line in the same deed.
CREATE TRIGGER card_match_is_undone_first BEFORE UPDATE ON payment FOR EACH ROW
BEGIN
  IF OLD.undone_entry_id IS NULL AND NEW.undone_entry_id IS NOT NULL
    AND EXISTS (SELECT 1 FROM card_match m WHERE m.payment_id = NEW.id) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L4: the payment stands on a statement of its card';
  END IF;
END//
DELIMITER ;

GRANT SELECT ON paid_from TO ${appUser};
GRANT SELECT, INSERT ON outside_entry TO ${appUser};
GRANT SELECT, INSERT ON outside_number TO ${appUser};
GRANT SELECT, INSERT, DELETE ON card_match TO ${appUser};
