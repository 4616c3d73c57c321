-- Approval: routes, marks, deputies, vendor changes by two people, mail, people.

ALTER TABLE person ADD COLUMN email VARCHAR(120) NOT NULL DEFAULT '';
ALTER TABLE person ADD COLUMN password_at DATETIME(6);
CREATE TABLE deputy (
  id BIGINT PRIMARY KEY,
  person_id BIGINT NOT NULL REFERENCES person (id),
  deputy_id BIGINT NOT NULL REFERENCES person (id),
  from_day DATE NOT NULL,
  until_day DATE NOT NULL,
  named_by BIGINT NOT NULL REFERENCES person (id),
  named_at DATETIME(6) NOT NULL,
  ended_at DATETIME(6),
  version BIGINT NOT NULL,
  CONSTRAINT deputy_is_another CHECK (person_id <> deputy_id),
  CONSTRAINT deputy_days CHECK (from_day <= until_day),
  INDEX (deputy_id)
);

-- ------------------------------------------------------------ vendors by two people
ALTER TABLE vendor ADD COLUMN one_time BOOLEAN NOT NULL DEFAULT FALSE;
ALTER TABLE remit_to
  ADD COLUMN in_force BOOLEAN NOT NULL DEFAULT TRUE,
  -- keyed hash of the bank details: equal exactly when they are
  ADD COLUMN bank_key VARCHAR(64) NOT NULL DEFAULT '',
  ADD COLUMN bank_mask VARCHAR(60) NOT NULL DEFAULT '',
  -- the address as it is compared: without case, spaces and punctuation
  ADD COLUMN address_key VARCHAR(400) AS (LOWER(REPLACE(REPLACE(REPLACE(REPLACE(REPLACE(
    address, ' ', ''), ',', ''), '.', ''), '-', ''), '\n', ''))) PERSISTENT,
  ADD INDEX (address_key(100)),
  ADD INDEX (bank_key);
-- what comes in waits for a second person; what was there stays
ALTER TABLE remit_to ALTER COLUMN in_force SET DEFAULT FALSE;
CREATE TABLE vendor_change (
  id BIGINT PRIMARY KEY,
  vendor_id BIGINT NOT NULL REFERENCES vendor (id),
  remit_to_id BIGINT NOT NULL REFERENCES remit_to (id),
  what VARCHAR(40) NOT NULL,
  before_payee VARCHAR(120) NOT NULL,
  before_address VARCHAR(400) NOT NULL,
  before_postal_code VARCHAR(20) NOT NULL,
  before_bank_sealed VARCHAR(400),
  before_bank_key VARCHAR(64) NOT NULL,
  before_bank_mask VARCHAR(60) NOT NULL,
  after_payee VARCHAR(120) NOT NULL,
  after_address VARCHAR(400) NOT NULL,
  after_postal_code VARCHAR(20) NOT NULL,
  after_bank_sealed VARCHAR(400),
  after_bank_key VARCHAR(64) NOT NULL,
  after_bank_mask VARCHAR(60) NOT NULL,
  why VARCHAR(200) NOT NULL,
  proposed_by BIGINT NOT NULL REFERENCES person (id),
  proposed_at DATETIME(6) NOT NULL,
  proposed_on DATE NOT NULL,
  state VARCHAR(20) NOT NULL,
  decided_by BIGINT REFERENCES person (id),
  decided_at DATETIME(6),
  decided_on DATE,
  decided_why VARCHAR(200) NOT NULL,
  version BIGINT NOT NULL,
  -- one proposal at a time for one address
  waiting_remit_to_id BIGINT AS (CASE WHEN state = 'PROPOSED' THEN remit_to_id END) PERSISTENT UNIQUE,
  CONSTRAINT two_people CHECK (state <> 'CONFIRMED' OR (decided_by IS NOT NULL AND decided_by <> proposed_by)),
  INDEX (vendor_id, state, decided_on),
  INDEX (remit_to_id, state)
);

-- ------------------------------------------------------------ routes and rounds
CREATE TABLE approval_policy (
  id BIGINT PRIMARY KEY,
  in_force_from DATE NOT NULL,
  content LONGTEXT NOT NULL,
  note VARCHAR(300) NOT NULL,
  made_by BIGINT NOT NULL REFERENCES person (id),
  made_at DATETIME(6) NOT NULL,
  INDEX (in_force_from, id)
);
-- One sending of a batch: its route as it was then, whatever the policy becomes.
CREATE TABLE approval_round (
  batch_id BIGINT NOT NULL REFERENCES batch (id),
  round INT NOT NULL,
  route VARCHAR(60) NOT NULL,
  why VARCHAR(500) NOT NULL,
  policy_id BIGINT REFERENCES approval_policy (id),
  sent_by BIGINT NOT NULL REFERENCES person (id),
  sent_at DATETIME(6) NOT NULL,
  PRIMARY KEY (batch_id, round)
);
CREATE TABLE approval_step (
  batch_id BIGINT NOT NULL,
  round INT NOT NULL,
  step INT NOT NULL,
  name VARCHAR(60) NOT NULL,
  role VARCHAR(20),
  needed INT NOT NULL,
  remind_after_hours INT NOT NULL,
  escalate_after_hours INT NOT NULL,
  opened_at DATETIME(6),
  reminded_at DATETIME(6),
  escalated_at DATETIME(6),
  PRIMARY KEY (batch_id, round, step),
  FOREIGN KEY (batch_id, round) REFERENCES approval_round (batch_id, round),
  CONSTRAINT somebody_is_needed CHECK (needed >= 1)
);
CREATE TABLE approval_step_person (
  batch_id BIGINT NOT NULL,
  round INT NOT NULL,
  step INT NOT NULL,
  -- 1: asked at once; 2: asked when it is escalated
  line INT NOT NULL,
  person_id BIGINT NOT NULL REFERENCES person (id),
  PRIMARY KEY (batch_id, round, step, line, person_id),
  FOREIGN KEY (batch_id, round, step) REFERENCES approval_step (batch_id, round, step)
);
-- What was sent, claim by claim, so that a later round can be compared with it.
CREATE TABLE approval_asked (
  batch_id BIGINT NOT NULL,
  round INT NOT NULL,
  claim_id BIGINT NOT NULL,
  vendor_id BIGINT NOT NULL,
  remit_to_id BIGINT NOT NULL,
  payee VARCHAR(120) NOT NULL,
  amount_minor BIGINT NOT NULL,
  digest VARCHAR(64) NOT NULL,
  PRIMARY KEY (batch_id, round, claim_id),
  FOREIGN KEY (batch_id, round) REFERENCES approval_round (batch_id, round)
);
CREATE TABLE approval_mark (
  batch_id BIGINT NOT NULL,
  round INT NOT NULL,
  claim_id BIGINT NOT NULL,
  mark_key VARCHAR(120) NOT NULL,
  kind VARCHAR(20) NOT NULL,
  reason VARCHAR(500) NOT NULL,
  facts LONGTEXT NOT NULL,
  PRIMARY KEY (batch_id, round, claim_id, mark_key),
  FOREIGN KEY (batch_id, round) REFERENCES approval_round (batch_id, round)
);
-- What the clerk says to a mark; the newest counts, none is lost.
CREATE TABLE mark_answer (
  id BIGINT PRIMARY KEY,
  batch_id BIGINT NOT NULL REFERENCES batch (id),
  mark_key VARCHAR(120) NOT NULL,
  note VARCHAR(500) NOT NULL,
  person_id BIGINT NOT NULL REFERENCES person (id),
  at DATETIME(6) NOT NULL,
  INDEX (batch_id)
);
-- A payment taken out of a batch that had been sent; the others and their approvals stand.
CREATE TABLE approval_strike (
  id BIGINT PRIMARY KEY,
  batch_id BIGINT NOT NULL REFERENCES batch (id),
  round INT NOT NULL,
  claim_id BIGINT NOT NULL,
  payee VARCHAR(120) NOT NULL,
  currency VARCHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL,
  reason VARCHAR(500) NOT NULL,
  person_id BIGINT NOT NULL REFERENCES person (id),
  at DATETIME(6) NOT NULL,
  UNIQUE (batch_id, round, claim_id)
);
-- What should change about a payment, said when the batch was sent back.
CREATE TABLE approval_note (
  batch_id BIGINT NOT NULL REFERENCES batch (id),
  round INT NOT NULL,
  claim_id BIGINT NOT NULL,
  payee VARCHAR(120) NOT NULL,
  note VARCHAR(500) NOT NULL,
  person_id BIGINT NOT NULL REFERENCES person (id),
  PRIMARY KEY (batch_id, round, claim_id)
);
ALTER TABLE approval
  ADD COLUMN on_behalf_of BIGINT REFERENCES person (id),
  ADD COLUMN business_date DATE;
UPDATE approval SET on_behalf_of = person_id, business_date = DATE(at);
ALTER TABLE approval
  MODIFY on_behalf_of BIGINT NOT NULL,
  MODIFY business_date DATE NOT NULL,
  -- whoever approved a step may still send the batch back, but nobody says the same twice
  DROP INDEX batch_id,
  ADD UNIQUE (batch_id, round, person_id, outcome);

ALTER TABLE claim
  ADD COLUMN bank_sealed VARCHAR(400),
  ADD COLUMN bank_key VARCHAR(64) NOT NULL DEFAULT '',
  ADD COLUMN bank_mask VARCHAR(60) NOT NULL DEFAULT '';
ALTER TABLE invoice ADD INDEX by_amount (vendor_id, kind, amount_minor);
ALTER TABLE payment ADD INDEX by_vendor (vendor_id, check_date);

-- Batches sent before there were routes had one step, for one approver.
INSERT INTO approval_round
  SELECT id, approval_round, 'One approver', 'sent before there were routes', NULL, prepared_by,
    COALESCE(sent_at, changed_at) FROM batch WHERE state <> 'DRAFT';
INSERT INTO approval_step
  SELECT batch_id, round, 1, 'Approval', 'APPROVER', 1, 0, 0, sent_at, NULL, NULL FROM approval_round;
INSERT INTO approval_asked
  SELECT b.id, b.approval_round, c.id, c.vendor_id, c.remit_to_id, c.payee, c.amount_minor, c.digest
  FROM batch b JOIN claim c ON c.batch_id = b.id WHERE b.state <> 'DRAFT' AND c.digest IS NOT NULL;

-- ------------------------------------------------------------ mail
CREATE TABLE mail (
  id BIGINT PRIMARY KEY,
  person_id BIGINT NOT NULL REFERENCES person (id),
  address VARCHAR(120) NOT NULL,
  subject VARCHAR(200) NOT NULL,
  text LONGTEXT NOT NULL,
  html LONGTEXT NOT NULL,
  link VARCHAR(200) NOT NULL,
  made_at DATETIME(6) NOT NULL,
  state VARCHAR(20) NOT NULL,
  tries INT NOT NULL,
  next_try_at DATETIME(6) NOT NULL,
  taken_until DATETIME(6),
  sent_at DATETIME(6),
  trouble VARCHAR(300) NOT NULL,
  INDEX (state, next_try_at)
);

ALTER TABLE audit_record
  ADD INDEX by_person (person_id, sequence),
  ADD INDEX by_deed (deed, sequence),
  ADD INDEX by_time (at);

-- ------------------------------------------------------------ laws
DROP TRIGGER approval_by_other_hands;
DROP TRIGGER payment_needs_approval;
DELIMITER //
-- L7: nobody approves what they prepared or changed, nor two steps, nor a payment to a vendor they changed lately; a deputy
-- acts under their own separations and those of whom they stand in for.
CREATE TRIGGER approval_by_other_hands BEFORE INSERT ON approval FOR EACH ROW
BEGIN
  IF NEW.outcome = 'APPROVED' THEN
    IF EXISTS (
        SELECT 1 FROM batch_hand h
        WHERE h.batch_id = NEW.batch_id AND h.person_id IN (NEW.person_id, NEW.on_behalf_of)) THEN
      SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L7: nobody approves what they prepared or changed';
    END IF;
    IF EXISTS (
        SELECT 1 FROM approval a
        WHERE a.batch_id = NEW.batch_id AND a.round = NEW.round AND a.outcome = 'APPROVED'
          AND (a.person_id IN (NEW.person_id, NEW.on_behalf_of) OR a.on_behalf_of IN (NEW.person_id, NEW.on_behalf_of)))
    THEN
      SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L7: nobody approves two steps of one route';
    END IF;
    IF EXISTS (
        SELECT 1 FROM vendor_change v JOIN claim c ON c.vendor_id = v.vendor_id
        WHERE c.batch_id = NEW.batch_id
          AND ((v.proposed_by IN (NEW.person_id, NEW.on_behalf_of) AND v.state IN ('PROPOSED', 'CONFIRMED'))
            OR (v.decided_by IN (NEW.person_id, NEW.on_behalf_of) AND v.state = 'CONFIRMED'))
          AND COALESCE(v.decided_on, v.proposed_on) >= NEW.business_date - INTERVAL 30 DAY) THEN
      SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L7: nobody approves a payment to a vendor they changed lately';
    END IF;
  END IF;
END//

-- L6: a payment comes only from a claim whose present digest was approved by as many people as every step names.
CREATE TRIGGER payment_needs_approval BEFORE INSERT ON payment FOR EACH ROW
BEGIN
  IF NOT EXISTS (
      SELECT 1 FROM claim c
      JOIN batch b ON b.id = c.batch_id
      JOIN approval_step s ON s.batch_id = b.id AND s.round = b.approval_round
      WHERE c.id = NEW.claim_id AND c.batch_id = NEW.batch_id AND c.amount_minor = NEW.amount_minor)
    OR EXISTS (
      SELECT 1 FROM claim c
      JOIN batch b ON b.id = c.batch_id
      JOIN approval_step s ON s.batch_id = b.id AND s.round = b.approval_round
      LEFT JOIN approval a ON a.batch_id = b.id AND a.round = b.approval_round AND a.step = s.step
        AND a.outcome = 'APPROVED'
      LEFT JOIN approval_claim ac ON ac.approval_id = a.id AND ac.claim_id = c.id AND ac.digest = c.digest
      WHERE c.id = NEW.claim_id
      GROUP BY s.step, s.needed HAVING COUNT(DISTINCT CASE WHEN ac.claim_id IS NOT NULL THEN a.person_id END) < s.needed)
  THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L6: the claim is not approved as it stands';
  END IF;
END//

-- A remit-to becomes only what two people agreed on.
CREATE TRIGGER remit_to_by_two BEFORE UPDATE ON remit_to FOR EACH ROW
BEGIN
  IF NEW.vendor_id <> OLD.vendor_id OR NOT EXISTS (
      SELECT 1 FROM vendor_change v
      WHERE v.remit_to_id = NEW.id AND v.state = 'CONFIRMED' AND v.decided_by <> v.proposed_by
        AND BINARY v.after_payee = BINARY NEW.payee AND BINARY v.after_address = BINARY NEW.address
        AND v.after_bank_key = NEW.bank_key) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L7: an address or bank details change by two people';
  END IF;
END//
-- What was proposed stays as it was proposed, and is decided once.
CREATE TRIGGER vendor_change_stands BEFORE UPDATE ON vendor_change FOR EACH ROW
BEGIN
  IF OLD.state <> 'PROPOSED' THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L7: a change is decided once';
  END IF;
END//

-- Somebody who can let people in is always left.
CREATE TRIGGER last_administrator_stays BEFORE UPDATE ON person FOR EACH ROW
BEGIN
  IF OLD.enabled AND NOT NEW.enabled
    AND EXISTS (SELECT 1 FROM person_role r WHERE r.person_id = OLD.id AND r.role = 'ADMINISTRATOR')
    AND NOT EXISTS (SELECT 1 FROM person_role r JOIN person p ON p.id = r.person_id
      WHERE r.role = 'ADMINISTRATOR' AND p.enabled AND p.id <> OLD.id) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'people: the last administrator stays';
  END IF;
END//
CREATE TRIGGER last_administrator_keeps_role BEFORE DELETE ON person_role FOR EACH ROW
BEGIN
  IF OLD.role = 'ADMINISTRATOR'
    AND NOT EXISTS (SELECT 1 FROM person_role r JOIN person p ON p.id = r.person_id
      WHERE r.role = 'ADMINISTRATOR' AND p.enabled AND p.id <> OLD.person_id) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'people: the last administrator stays';
  END IF;
END//
DELIMITER ;

-- ------------------------------------------------------------ rights of the application
REVOKE INSERT ON remit_to FROM ${appUser};
-- not in_force: only a confirmed change sets it
GRANT INSERT (id, vendor_id, payee, address, postal_code, bank_details_sealed, bank_key, bank_mask) ON remit_to
  TO ${appUser};
GRANT UPDATE (payee, address, postal_code, bank_details_sealed, bank_key, bank_mask, in_force) ON remit_to TO ${appUser};
GRANT SELECT, INSERT, UPDATE (state, decided_by, decided_at, decided_on, decided_why, version) ON vendor_change
  TO ${appUser};
GRANT SELECT, INSERT, UPDATE (ended_at, version) ON deputy TO ${appUser};
GRANT SELECT, INSERT ON approval_policy TO ${appUser};
GRANT SELECT, INSERT ON approval_round TO ${appUser};
GRANT SELECT, INSERT, UPDATE (opened_at, reminded_at, escalated_at) ON approval_step TO ${appUser};
GRANT SELECT, INSERT ON approval_step_person TO ${appUser};
GRANT SELECT, INSERT ON approval_asked TO ${appUser};
GRANT SELECT, INSERT ON approval_mark TO ${appUser};
GRANT SELECT, INSERT ON mark_answer TO ${appUser};
GRANT SELECT, INSERT ON approval_note TO ${appUser};
GRANT SELECT, INSERT ON approval_strike TO ${appUser};
GRANT SELECT, INSERT, UPDATE (state, tries, next_try_at, taken_until, sent_at, trouble) ON mail TO ${appUser};
