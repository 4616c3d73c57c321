-- Undoing: what somebody asked for, what a second person said to it, and what of it went to accounts that were chosen.

CREATE TABLE undoing (
  id BIGINT PRIMARY KEY,
  kind VARCHAR(20) NOT NULL,
  reason VARCHAR(300) NOT NULL,
  -- what becomes of each payment and invoice, as it was asked for
  content LONGTEXT NOT NULL CHECK (JSON_VALID(content)),
  -- true where a second person has to agree
  by_two BOOLEAN NOT NULL,
  state VARCHAR(20) NOT NULL,
  asked_by BIGINT NOT NULL REFERENCES person (id),
  asked_at DATETIME(6) NOT NULL,
  asked_on DATE NOT NULL,
  decided_by BIGINT REFERENCES person (id),
  decided_at DATETIME(6),
  decided_why VARCHAR(300) NOT NULL DEFAULT '',
  INDEX (state),
  CONSTRAINT undone_for_a_reason CHECK (reason <> ''),
  CONSTRAINT undone_by_two CHECK (NOT by_two OR state <> 'DONE' OR (decided_by IS NOT NULL AND decided_by <> asked_by)),
  CONSTRAINT decided_or_waiting CHECK ((state = 'ASKED') = (decided_at IS NULL))
);
CREATE TABLE undoing_payment (
  undoing_id BIGINT NOT NULL REFERENCES undoing (id),
  payment_id BIGINT NOT NULL REFERENCES payment (id),
  -- the payment while a second person is waited for: nothing else is asked of it meanwhile
  waiting_payment_id BIGINT UNIQUE,
  PRIMARY KEY (undoing_id, payment_id),
  INDEX (payment_id)
);
-- What an undoing entry credits to an account that was chosen, instead of the one the payment's entry names (L4).
CREATE TABLE undoing_choice (
  id BIGINT PRIMARY KEY,
  undoing_id BIGINT NOT NULL REFERENCES undoing (id),
  payment_id BIGINT NOT NULL REFERENCES payment (id),
  entry_id BIGINT NOT NULL REFERENCES journal_entry (id),
  invoice_id BIGINT NOT NULL REFERENCES invoice (id),
  from_account_id BIGINT NOT NULL REFERENCES ledger_account (id),
  to_account_id BIGINT NOT NULL REFERENCES ledger_account (id),
  currency VARCHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL,
  INDEX (entry_id),
  CONSTRAINT chooses_something CHECK (amount_minor <> 0)
);

-- Stops, as the bank was asked for them and as it answered.
CREATE TABLE stop_order (
  id BIGINT PRIMARY KEY,
  payment_id BIGINT NOT NULL REFERENCES payment (id),
  asked_on DATE NOT NULL,
  asked_at DATETIME(6) NOT NULL,
  asked_by BIGINT NOT NULL REFERENCES person (id),
  why VARCHAR(300) NOT NULL,
  confirmed_on DATE,
  confirmed_by BIGINT REFERENCES person (id),
  reference VARCHAR(60) NOT NULL DEFAULT '',
  -- the last day on which the bank keeps to it
  expires_on DATE,
  ended_at DATETIME(6),
  ended_how VARCHAR(20),
  standing_payment_id BIGINT AS (CASE WHEN ended_at IS NULL THEN payment_id END) PERSISTENT UNIQUE,
  INDEX (payment_id),
  CONSTRAINT stopped_for_a_reason CHECK (why <> ''),
  CONSTRAINT confirmed_with_a_reference CHECK ((confirmed_on IS NULL) = (reference = '')),
  CONSTRAINT expires_once_confirmed CHECK (expires_on IS NULL OR expires_on >= confirmed_on)
);
-- Stops that stand, as others ask for them.
CREATE VIEW standing_stop AS
  SELECT payment_id, asked_on, why, confirmed_on, reference, expires_on FROM stop_order WHERE ended_at IS NULL;
-- Who is waited for over a payment.
CREATE VIEW waiting_undoing AS
  SELECT waiting_payment_id AS payment_id, undoing_id FROM undoing_payment WHERE waiting_payment_id IS NOT NULL;

-- A payment that replaces another; what was taken out again replaces nothing.
ALTER TABLE payment ADD INDEX replaces (replaces_id);
ALTER TABLE payment
  DROP INDEX replaces_id,
  ADD COLUMN replacing_id BIGINT AS (CASE WHEN state <> 'TAKEN_OUT' THEN replaces_id END) PERSISTENT UNIQUE,
  -- the year it is reported in where that is not the year of its check date
  ADD COLUMN reported_year INT;

DROP TRIGGER payment_stands;
DELIMITER //
CREATE TRIGGER payment_stands BEFORE UPDATE ON payment FOR EACH ROW
BEGIN
  IF (OLD.posted_entry_id IS NOT NULL AND NOT NEW.posted_entry_id <=> OLD.posted_entry_id)
    OR (OLD.undone_entry_id IS NOT NULL AND NOT NEW.undone_entry_id <=> OLD.undone_entry_id)
    OR (OLD.state IN ('TAKEN_OUT', 'VOIDED', 'REVERSED') AND NEW.state <> OLD.state) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L4: what became of a payment stands';
  END IF;
  IF OLD.posted_entry_id IS NULL AND NEW.posted_entry_id IS NOT NULL THEN
    CALL must_be_approved(NEW.id);
    IF NEW.replaces_id IS NOT NULL AND NOT EXISTS (
        SELECT 1 FROM payment o WHERE o.id = NEW.replaces_id AND o.undone_entry_id IS NOT NULL) THEN
      SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L12: what a payment replaces is undone with its posting';
    END IF;
  END IF;
  -- L7: a stop is lifted by a second person, who neither asked for that nor prepared the payment
  IF OLD.state = 'STOPPED' AND NEW.state = 'OUTSTANDING' AND NOT EXISTS (
      SELECT 1 FROM undoing u JOIN undoing_payment x ON x.undoing_id = u.id AND x.payment_id = NEW.id
      WHERE u.kind = 'LIFT_STOP' AND u.by_two AND u.state = 'DONE'
        AND u.decided_at >= (SELECT MAX(s.asked_at) FROM stop_order s WHERE s.payment_id = NEW.id)
        AND NOT EXISTS (SELECT 1 FROM hand h WHERE h.batch_id = NEW.batch_id AND h.person_id = u.decided_by)) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L7: a stop is lifted by two people';
  END IF;
END//
CREATE TRIGGER undoing_stands BEFORE UPDATE ON undoing FOR EACH ROW
BEGIN
  IF OLD.state <> 'ASKED' OR NEW.kind <> OLD.kind OR NEW.reason <> OLD.reason OR BINARY NEW.content <> BINARY OLD.content
    OR NEW.by_two <> OLD.by_two OR NEW.asked_by <> OLD.asked_by THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L7: what was asked for is decided once, as it was asked';
  END IF;
END//
CREATE TRIGGER undoing_begins BEFORE INSERT ON undoing FOR EACH ROW
BEGIN
  IF NEW.by_two AND NEW.state <> 'ASKED' THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L7: what two agree on begins with a question';
  END IF;
END//
-- L7: an invoice is cancelled with its payment only by a second person, who neither asked nor prepared the payment.
CREATE TRIGGER undoing_choice_by_two BEFORE INSERT ON undoing_choice FOR EACH ROW
BEGIN
  IF NOT EXISTS (
      SELECT 1 FROM undoing u JOIN undoing_payment x ON x.undoing_id = u.id AND x.payment_id = NEW.payment_id
      JOIN payment p ON p.id = NEW.payment_id
      WHERE u.id = NEW.undoing_id AND u.by_two AND u.state = 'DONE'
        AND NOT EXISTS (SELECT 1 FROM hand h WHERE h.batch_id = p.batch_id AND h.person_id = u.decided_by)) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L7: an invoice is cancelled with its payment by two people';
  END IF;
END//
DELIMITER ;

GRANT SELECT, INSERT, UPDATE (state, decided_by, decided_at, decided_why) ON undoing TO ${appUser};
GRANT SELECT, INSERT, UPDATE (waiting_payment_id) ON undoing_payment TO ${appUser};
GRANT SELECT, INSERT ON undoing_choice TO ${appUser};
GRANT SELECT, INSERT, UPDATE (confirmed_on, confirmed_by, reference, expires_on, ended_at, ended_how) ON stop_order
  TO ${appUser};
GRANT SELECT ON standing_stop TO ${appUser};
GRANT SELECT ON waiting_undoing TO ${appUser};

-- ------------------------------------------------------------ documents that were cancelled, or corrected by another
ALTER TABLE invoice ADD INDEX by_its_reference (vendor_id, kind, reference);
ALTER TABLE invoice
  -- the ledger date from which nothing of it stands any more
  ADD COLUMN cancelled_on DATE,
  -- the document that was entered anew in place of this one
  ADD COLUMN corrects_id BIGINT UNIQUE REFERENCES invoice (id),
  ADD COLUMN standing_reference VARCHAR(40) AS (CASE WHEN cancelled_on IS NULL THEN reference END) PERSISTENT,
  DROP INDEX vendor_id,
  -- a vendor's reference is there once, but for what was cancelled
  ADD CONSTRAINT once_of_a_vendor UNIQUE (vendor_id, kind, standing_reference);
CREATE TABLE invoice_note (
  id BIGINT PRIMARY KEY,
  invoice_id BIGINT NOT NULL REFERENCES invoice (id),
  at DATETIME(6) NOT NULL,
  person_id BIGINT NOT NULL REFERENCES person (id),
  text VARCHAR(500) NOT NULL CHECK (text <> ''),
  INDEX (invoice_id)
);
-- Money a vendor sent back for a credit.
CREATE TABLE credit_refund (
  id BIGINT PRIMARY KEY,
  invoice_id BIGINT NOT NULL REFERENCES invoice (id),
  bank_account_id BIGINT NOT NULL REFERENCES bank_account (id),
  reference VARCHAR(60) NOT NULL,
  currency VARCHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL CHECK (amount_minor > 0),
  ledger_date DATE NOT NULL,
  entry_id BIGINT NOT NULL UNIQUE REFERENCES journal_entry (id),
  settlement_id BIGINT NOT NULL UNIQUE REFERENCES settlement (id),
  made_at DATETIME(6) NOT NULL,
  made_by BIGINT NOT NULL REFERENCES person (id),
  undone_entry_id BIGINT UNIQUE REFERENCES journal_entry (id),
  INDEX (invoice_id)
);
DELIMITER //
CREATE TRIGGER invoice_stands BEFORE UPDATE ON invoice FOR EACH ROW
BEGIN
  IF NOT NEW.cancelled_on <=> OLD.cancelled_on
    AND (OLD.cancelled_on IS NOT NULL OR NEW.open_minor <> 0 OR (SELECT COALESCE(SUM(s.amount_minor), 0) FROM settlement s
      WHERE s.invoice_id = NEW.id AND s.kind = 'CANCELLATION') <> NEW.amount_minor) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L2: a document is cancelled once, whole, by its rows';
  END IF;
  IF (NEW.due_date <> OLD.due_date OR NOT NEW.discount_date <=> OLD.discount_date OR NEW.discount_rate <> OLD.discount_rate
      OR NEW.remit_to_id <> OLD.remit_to_id OR NEW.own_check <> OLD.own_check)
    AND EXISTS (SELECT 1 FROM reservation r JOIN batch b ON b.id = r.batch_id
      WHERE r.invoice_id = NEW.id AND b.state <> 'DRAFT') THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L6: what was sent for approval stands';
  END IF;
END//
DELIMITER ;
GRANT UPDATE (cancelled_on, due_date, discount_date, discount_rate, remit_to_id) ON invoice TO ${appUser};
GRANT SELECT, INSERT ON invoice_note TO ${appUser};
GRANT SELECT, INSERT, UPDATE (undone_entry_id) ON credit_refund TO ${appUser};
