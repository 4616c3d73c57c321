-- A payment has a life of its own, whatever carries it; a check number keeps to its paper.

-- ------------------------------------------------------------ the life of a payment
DROP TRIGGER payment_stands;
REVOKE UPDATE (posted_entry_id, void_entry_id, taken_out_at, taken_out_by, taken_out_why, version) ON payment
  FROM ${appUser};
ALTER TABLE payment RENAME COLUMN void_entry_id TO undone_entry_id;
ALTER TABLE payment
  ADD COLUMN state VARCHAR(20) NOT NULL DEFAULT 'PREPARED',
  -- the business date of its last step, and why it was taken
  ADD COLUMN state_date DATE,
  ADD COLUMN state_why VARCHAR(300) NOT NULL DEFAULT '',
  ADD COLUMN steps INT NOT NULL DEFAULT 0,
  -- the payment it was made instead of
  ADD COLUMN replaces_id BIGINT UNIQUE REFERENCES payment (id);
CREATE TABLE payment_event (
  payment_id BIGINT NOT NULL REFERENCES payment (id),
  -- 1, 2, 3 … in the life of its payment, whatever the clocks say
  step INT NOT NULL,
  at DATETIME(6) NOT NULL,
  business_date DATE NOT NULL,
  person_id BIGINT NOT NULL REFERENCES person (id),
  to_state VARCHAR(20) NOT NULL,
  why VARCHAR(300) NOT NULL,
  PRIMARY KEY (payment_id, step)
);
-- A payment began when its first number was taken.
INSERT INTO payment_event
  SELECT x.payment_id, 1, x.at, x.business_date, x.person_id, 'PREPARED', '' FROM (
    SELECT n.payment_id, e.at, e.business_date, e.person_id,
      ROW_NUMBER() OVER (PARTITION BY n.payment_id ORDER BY e.at, n.id, e.step) AS place
    FROM check_number n JOIN number_event e ON e.check_number_id = n.id AND e.to_state = 'TAKEN'
    WHERE n.payment_id IS NOT NULL) x
  WHERE x.place = 1;
INSERT INTO payment_event
  SELECT p.id, 1, b.changed_at, DATE(b.changed_at), b.changed_by, 'PREPARED', ''
  FROM payment p JOIN batch b ON b.id = p.batch_id
  WHERE NOT EXISTS (SELECT 1 FROM payment_event e WHERE e.payment_id = p.id);
-- What became of a number once it was posted is the life of its payment.
INSERT INTO payment_event
  SELECT n.payment_id, 1 + ROW_NUMBER() OVER (PARTITION BY n.payment_id ORDER BY e.step), e.at, e.business_date,
    e.person_id, e.to_state, e.why
  FROM check_number n JOIN number_event e ON e.check_number_id = n.id
  WHERE e.to_state IN ('OUTSTANDING', 'STOPPED', 'CLEARED', 'VOIDED');
INSERT INTO payment_event
  SELECT p.id, 2, p.taken_out_at,
    -- the business date is that of its last number's last step, which is not the day of the clock
    COALESCE((SELECT e.business_date FROM check_number n JOIN number_event e ON e.check_number_id = n.id
      WHERE n.payment_id = p.id ORDER BY e.at DESC, n.id DESC, e.step DESC LIMIT 1), DATE(p.taken_out_at)),
    p.taken_out_by, 'TAKEN_OUT', p.taken_out_why
  FROM payment p WHERE p.taken_out_at IS NOT NULL;
UPDATE payment p
  JOIN (SELECT payment_id, MAX(step) AS steps FROM payment_event GROUP BY payment_id) s ON s.payment_id = p.id
  JOIN payment_event e ON e.payment_id = p.id AND e.step = s.steps
  SET p.state = e.to_state, p.state_date = e.business_date, p.state_why = e.why, p.steps = s.steps;

DELETE FROM number_event WHERE to_state IN ('OUTSTANDING', 'STOPPED', 'CLEARED', 'VOIDED');
UPDATE check_number n
  JOIN (SELECT check_number_id, MAX(step) AS steps FROM number_event GROUP BY check_number_id) s
    ON s.check_number_id = n.id
  JOIN number_event e ON e.check_number_id = n.id AND e.step = s.steps
  SET n.explanation = e.why, n.state_date = e.business_date, n.steps = s.steps, n.state = e.to_state
  WHERE n.state IN ('OUTSTANDING', 'STOPPED', 'CLEARED', 'VOIDED');
ALTER TABLE check_number DROP COLUMN live_payment_id;
ALTER TABLE check_number
  -- a payment has at most one live number
  ADD COLUMN live_payment_id BIGINT AS (CASE WHEN state IN ('TAKEN', 'PRINTED') THEN payment_id END) PERSISTENT UNIQUE,
  ADD CONSTRAINT states_of_paper CHECK (state IN ('TAKEN', 'PRINTED', 'SPOILED', 'UNACCOUNTED'));

CREATE OR REPLACE VIEW standing_claim AS
  SELECT c.* FROM claim c LEFT JOIN payment p ON p.claim_id = c.id WHERE COALESCE(p.state, '') <> 'TAKEN_OUT';
ALTER TABLE payment
  DROP CONSTRAINT taken_out_or_posted,
  DROP CONSTRAINT taken_out_by_somebody,
  DROP FOREIGN KEY payment_ibfk_7,
  DROP COLUMN taken_out_at,
  DROP COLUMN taken_out_by,
  DROP COLUMN taken_out_why,
  MODIFY state_date DATE NOT NULL,
  -- it was not taken out of its batch
  ADD COLUMN standing BOOLEAN AS (state <> 'TAKEN_OUT') PERSISTENT,
  ADD CONSTRAINT state_and_ledger CHECK (
    (posted_entry_id IS NULL) = (state IN ('PREPARED', 'TAKEN_OUT'))
    AND (undone_entry_id IS NULL) = (state NOT IN ('VOIDED', 'REVERSED'))),
  ADD CONSTRAINT taken_out_for_a_reason CHECK (state <> 'TAKEN_OUT' OR state_why <> ''),
  ADD INDEX (bank_account_id, state),
  ADD INDEX (batch_id, state);
-- What the register says of each number: its own state, or that of the payment it carries once the ledger has it (L3).
CREATE VIEW check_register AS
  SELECT n.id, n.bank_account_id, n.prefix, n.stock, n.number, n.payment_id,
    COALESCE(c.state, n.state) AS state, COALESCE(c.state_date, n.state_date) AS state_date,
    COALESCE(c.state_why, n.explanation) AS explanation
  FROM check_number n LEFT JOIN payment c ON c.id = n.live_payment_id AND c.posted_entry_id IS NOT NULL;

-- ------------------------------------------------------------ what a batch is for
DROP TRIGGER batch_stands;
DROP TRIGGER payment_needs_approval;
ALTER TABLE batch ADD COLUMN purpose VARCHAR(20) NOT NULL DEFAULT 'RUN';
ALTER TABLE batch ALTER COLUMN purpose DROP DEFAULT;

DELIMITER //
CREATE TRIGGER batch_stands BEFORE UPDATE ON batch FOR EACH ROW
BEGIN
  IF NEW.purpose <> OLD.purpose OR NEW.bank_account_id <> OLD.bank_account_id OR NEW.method <> OLD.method
    OR ((NEW.check_date <> OLD.check_date OR NEW.ledger_date <> OLD.ledger_date)
      AND EXISTS (SELECT 1 FROM payment p WHERE p.batch_id = OLD.id)) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L6: the batch has its numbers, its days stand';
  END IF;
END//
-- L6: a payment leaves the house only when the present digest of its claim was approved by as many people as every step of
-- its route names. What it was before it leaves (an outside payment, written down afterwards) waits for that.
CREATE PROCEDURE must_be_approved(IN paying BIGINT)
BEGIN
  IF NOT EXISTS (
      SELECT 1 FROM payment p JOIN claim c ON c.id = p.claim_id AND c.batch_id = p.batch_id
        AND c.amount_minor = p.amount_minor
      JOIN batch b ON b.id = c.batch_id
      JOIN approval_step s ON s.batch_id = b.id AND s.round = b.approval_round
      WHERE p.id = paying)
    OR EXISTS (
      SELECT 1 FROM payment p JOIN claim c ON c.id = p.claim_id
      JOIN batch b ON b.id = c.batch_id
      JOIN approval_step s ON s.batch_id = b.id AND s.round = b.approval_round
      LEFT JOIN approval a ON a.batch_id = b.id AND a.round = b.approval_round AND a.step = s.step
        AND a.outcome = 'APPROVED'
      LEFT JOIN approval_claim ac ON ac.approval_id = a.id AND ac.claim_id = c.id AND ac.digest = c.digest
      WHERE p.id = paying
      GROUP BY s.step, s.needed HAVING COUNT(DISTINCT CASE WHEN ac.claim_id IS NOT NULL THEN a.person_id END) < s.needed)
  THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L6: the claim is not approved as it stands';
  END IF;
END//
-- L5: the bank hears of the number that carries a payment, never of one that was spoiled or lost.
CREATE TRIGGER bank_event_of_what_pays BEFORE INSERT ON bank_event FOR EACH ROW
BEGIN
  IF NOT EXISTS (SELECT 1 FROM check_number n WHERE n.id = NEW.check_number_id AND n.live_payment_id IS NOT NULL) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L5: the number carries no payment the bank could hear of';
  END IF;
END//
CREATE TRIGGER number_needs_approval BEFORE INSERT ON check_number FOR EACH ROW
BEGIN
  IF NEW.payment_id IS NOT NULL THEN
    CALL must_be_approved(NEW.payment_id);
  END IF;
END//
CREATE TRIGGER payment_stands BEFORE UPDATE ON payment FOR EACH ROW
BEGIN
  IF (OLD.posted_entry_id IS NOT NULL AND NOT NEW.posted_entry_id <=> OLD.posted_entry_id)
    OR (OLD.undone_entry_id IS NOT NULL AND NOT NEW.undone_entry_id <=> OLD.undone_entry_id)
    OR (OLD.state IN ('TAKEN_OUT', 'VOIDED', 'REVERSED') AND NEW.state <> OLD.state) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L4: what became of a payment stands';
  END IF;
  IF OLD.posted_entry_id IS NULL AND NEW.posted_entry_id IS NOT NULL THEN
    CALL must_be_approved(NEW.id);
  END IF;
END//
-- The paper of a payment the ledger has is not called something else afterwards.
CREATE TRIGGER check_number_carries BEFORE UPDATE ON check_number FOR EACH ROW
BEGIN
  IF NEW.payment_id IS NOT NULL AND NOT NEW.payment_id <=> OLD.payment_id THEN
    CALL must_be_approved(NEW.payment_id);
  END IF;
  IF OLD.state = 'PRINTED' AND (NEW.state <> OLD.state OR NOT NEW.payment_id <=> OLD.payment_id)
    AND EXISTS (SELECT 1 FROM payment p WHERE p.id = OLD.payment_id AND p.posted_entry_id IS NOT NULL) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L3: the number carries a payment that is posted';
  END IF;
END//
DELIMITER ;

GRANT UPDATE (posted_entry_id, undone_entry_id, state, state_date, state_why, steps, version) ON payment TO ${appUser};
GRANT SELECT, INSERT ON payment_event TO ${appUser};
GRANT SELECT ON check_register TO ${appUser};
