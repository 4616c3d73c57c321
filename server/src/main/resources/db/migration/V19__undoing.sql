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

DELIMITER //
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
