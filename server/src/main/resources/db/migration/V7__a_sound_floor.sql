-- What was found wrong is put right where it cannot be bypassed: days of the ledger, entries that balance, what stands once
-- it left the house, hands, and lists that two people keep.

-- ------------------------------------------------------------ L2: what is open on every day
ALTER TABLE invoice
  -- from this ledger date on, all that is open now stayed open
  ADD COLUMN open_since DATE,
  -- what neither cash nor discount settled of it
  ADD COLUMN at_par_minor BIGINT NOT NULL DEFAULT 0;
UPDATE invoice i SET i.open_since = i.ledger_date;
UPDATE invoice i JOIN (
    SELECT invoice_id, SUM(amount_minor) AS at_par FROM settlement WHERE kind NOT IN ('CASH', 'DISCOUNT')
    GROUP BY invoice_id) s ON s.invoice_id = i.id
  SET i.at_par_minor = s.at_par;
UPDATE invoice i JOIN (
    SELECT invoice_id, MAX(ledger_date) AS since FROM (
      SELECT invoice_id, ledger_date,
        SUM(SUM(amount_minor)) OVER (PARTITION BY invoice_id ORDER BY ledger_date DESC) AS later
      FROM settlement GROUP BY invoice_id, ledger_date) sums
    WHERE later < 0 GROUP BY invoice_id) s ON s.invoice_id = i.id
  SET i.open_since = GREATEST(i.ledger_date, s.since);
ALTER TABLE invoice MODIFY open_since DATE NOT NULL;

DROP TRIGGER settlement_reserved;
DROP TRIGGER settlement_moves_open;
DELIMITER //
CREATE TRIGGER invoice_arrives_whole BEFORE INSERT ON invoice FOR EACH ROW
BEGIN
  IF NEW.amount_minor > 9999999999999 THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L2: no amount is over 99,999,999,999.99';
  END IF;
  SET NEW.open_minor = NEW.amount_minor, NEW.discount_taken_minor = 0, NEW.at_par_minor = 0,
    NEW.open_since = NEW.ledger_date;
END//

-- L2, L8, L9: a settlement is dated when its item is there and open enough, on that day and every later one, in an open
-- month and as its entry; undoing mirrors what it undoes; only its own batch may settle what is reserved.
CREATE TRIGGER settlement_lawful BEFORE INSERT ON settlement FOR EACH ROW
BEGIN
  DECLARE arrived DATE;
  DECLARE since DATE;
  DECLARE still BIGINT;
  DECLARE least_later BIGINT;
  DECLARE is_locked BOOLEAN;
  DECLARE item_currency VARCHAR(3);
  SELECT ledger_date, open_since, open_minor, currency INTO arrived, since, still, item_currency
  FROM invoice WHERE id = NEW.invoice_id FOR UPDATE;
  IF NEW.currency <> item_currency THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L2: a settlement is of its item''s currency';
  END IF;
  IF NEW.reverses_id IS NULL THEN
    IF EXISTS (SELECT 1 FROM reservation r
        WHERE r.invoice_id = NEW.invoice_id AND r.batch_id <> COALESCE(NEW.batch_id, 0)) THEN
      SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L9: the invoice is reserved by another batch';
    END IF;
    IF NEW.amount_minor <= 0 THEN
      SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L2: a settlement takes something off';
    END IF;
    IF NEW.ledger_date < arrived THEN
      SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L2: nothing is settled before its own ledger date';
    END IF;
    IF NEW.ledger_date < since THEN
      SELECT COALESCE(MIN(later), 0) INTO least_later FROM (
        SELECT SUM(SUM(amount_minor)) OVER (ORDER BY ledger_date DESC) AS later
        FROM settlement WHERE invoice_id = NEW.invoice_id AND ledger_date > NEW.ledger_date GROUP BY ledger_date) sums;
      IF still + LEAST(0, least_later) < NEW.amount_minor THEN
        SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L2: it is not open by that much on that day and every later one';
      END IF;
    END IF;
  ELSEIF NOT EXISTS (SELECT 1 FROM settlement o
      WHERE o.id = NEW.reverses_id AND o.reverses_id IS NULL AND o.invoice_id = NEW.invoice_id AND o.kind = NEW.kind
        AND o.currency = NEW.currency AND o.amount_minor = -NEW.amount_minor AND o.ledger_date <= NEW.ledger_date) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L2: undoing mirrors its original, on its day or later';
  END IF;
  SELECT locked INTO is_locked FROM period WHERE month = DATE_FORMAT(NEW.ledger_date, '%Y-%m') LOCK IN SHARE MODE;
  IF is_locked THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L8: the period is locked';
  END IF;
  IF NEW.entry_id IS NOT NULL AND NOT EXISTS (
      SELECT 1 FROM journal_entry e WHERE e.id = NEW.entry_id AND e.ledger_date = NEW.ledger_date) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L8: a settlement is dated as its entry';
  END IF;
END//
CREATE TRIGGER settlement_moves_open AFTER INSERT ON settlement FOR EACH ROW
BEGIN
  DECLARE arrived DATE;
  DECLARE since DATE;
  SELECT ledger_date, open_since INTO arrived, since FROM invoice WHERE id = NEW.invoice_id;
  IF NEW.amount_minor < 0 OR since > arrived THEN
    SELECT GREATEST(arrived, COALESCE(MAX(ledger_date), arrived)) INTO since FROM (
      SELECT ledger_date, SUM(SUM(amount_minor)) OVER (ORDER BY ledger_date DESC) AS later
      FROM settlement WHERE invoice_id = NEW.invoice_id GROUP BY ledger_date) sums WHERE later < 0;
  END IF;
  UPDATE invoice
  SET open_minor = open_minor - NEW.amount_minor,
      discount_taken_minor = discount_taken_minor + CASE WHEN NEW.kind = 'DISCOUNT' THEN NEW.amount_minor ELSE 0 END,
      at_par_minor = at_par_minor + CASE WHEN NEW.kind IN ('CASH', 'DISCOUNT') THEN 0 ELSE NEW.amount_minor END,
      open_since = since
  WHERE id = NEW.invoice_id;
END//
DELIMITER ;

-- ------------------------------------------------------------ L1: an entry stands balanced from its first moment
-- Its lines come first; the entry closes them, and then nothing comes to it any more.
ALTER TABLE journal_line DROP FOREIGN KEY journal_line_ibfk_1;
CREATE SEQUENCE entry_seq START WITH 1 INCREMENT BY 100 NOCACHE;
DROP TRIGGER journal_entry_period;
DELIMITER //
BEGIN NOT ATOMIC
  SET @next = (SELECT COALESCE(MAX(id), 0) + 1001 FROM journal_entry);
  EXECUTE IMMEDIATE CONCAT('ALTER SEQUENCE entry_seq RESTART WITH ', @next);
END//
CREATE TRIGGER journal_line_before_its_entry BEFORE INSERT ON journal_line FOR EACH ROW
BEGIN
  IF EXISTS (SELECT 1 FROM journal_entry e WHERE e.id = NEW.entry_id) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L1: an entry stands as it was written';
  END IF;
END//
CREATE TRIGGER journal_entry_lawful BEFORE INSERT ON journal_entry FOR EACH ROW
BEGIN
  DECLARE is_locked BOOLEAN;
  DECLARE currencies INT;
  DECLARE off INT;
  IF NEW.month <> DATE_FORMAT(NEW.ledger_date, '%Y-%m') THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L8: an entry lies in the month of its date';
  END IF;
  -- shared, so that no lock of the period can slip in before this entry is committed
  SELECT locked INTO is_locked FROM period WHERE month = NEW.month LOCK IN SHARE MODE;
  IF is_locked THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L8: the period is locked';
  END IF;
  SELECT COUNT(*), COALESCE(SUM(difference <> 0), 0) INTO currencies, off FROM (
    SELECT SUM(debit_minor) - SUM(credit_minor) AS difference FROM journal_line
    WHERE entry_id = NEW.id GROUP BY currency) sums;
  IF currencies = 0 OR off > 0 THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L1: an entry has lines, and they balance';
  END IF;
END//
DELIMITER ;

-- ------------------------------------------------------------ L8: a lock keeps how many settlements lie in its month
ALTER TABLE settlement ADD INDEX (ledger_date);
ALTER TABLE period_lock ADD COLUMN settlements INT NOT NULL DEFAULT 0;
UPDATE period_lock k SET k.settlements = (SELECT COUNT(*) FROM settlement s
  WHERE s.ledger_date BETWEEN CONCAT(k.month, '-01') AND LAST_DAY(CONCAT(k.month, '-01')));

-- ------------------------------------------------------------ the order of a batch, as core reckons it
ALTER TABLE claim
  ADD COLUMN order_key VARCHAR(400) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL DEFAULT '',
  ADD INDEX (batch_id, order_key);
UPDATE claim c JOIN batch b ON b.id = c.batch_id
  LEFT JOIN (SELECT claim_id, MIN(invoice_id) AS first FROM claim_line WHERE kind = 'INVOICE' GROUP BY claim_id) l
    ON l.claim_id = c.id
  SET c.order_key = CONCAT_WS(CHAR(1 USING utf8mb4),
    CASE b.claim_order
      WHEN 'PAYEE' THEN LOWER(c.payee)
      WHEN 'AMOUNT' THEN LPAD(9223372036854775807 - c.amount_minor, 19, '0')
      WHEN 'POSTAL_CODE' THEN LOWER(c.postal_code)
      ELSE '' END,
    LOWER(c.vendor_number), LPAD(c.remit_to_id, 19, '0'), LPAD(COALESCE(l.first, 0), 19, '0'));

-- ------------------------------------------------------------ cash movements the ledger has by now
ALTER TABLE cash_movement
  ADD COLUMN closed_at DATETIME(6),
  ADD COLUMN closed_by BIGINT REFERENCES person (id),
  ADD COLUMN closed_why VARCHAR(200),
  ADD CONSTRAINT closed_by_somebody CHECK (closed_at IS NULL OR (closed_by IS NOT NULL AND closed_why <> ''));
GRANT UPDATE (closed_at, closed_by, closed_why) ON cash_movement TO ${appUser};
GRANT SELECT, INSERT ON entry_seq TO ${appUser};

-- ------------------------------------------------------------ issues and voids of a file are never added
ALTER TABLE bank_file
  ADD COLUMN voids INT NOT NULL DEFAULT 0,
  ADD COLUMN void_minor BIGINT NOT NULL DEFAULT 0;
UPDATE bank_file f JOIN (
    SELECT t.file_id, COUNT(*) AS many, SUM(e.amount_minor) AS total FROM bank_file_item t
    JOIN bank_event e ON e.id = t.event_id WHERE e.kind = 'VOID' GROUP BY t.file_id) v ON v.file_id = f.id
  SET f.voids = v.many, f.void_minor = v.total, f.total_minor = f.total_minor - v.total;
UPDATE bank_file_layout SET definition = REPLACE(definition, '"TOTAL"', '"ISSUE_TOTAL"');

-- ------------------------------------------------------------ the MICR pattern names its two free fields
UPDATE bank_account
  SET micr_pattern = CONCAT(TRIM(SUBSTRING_INDEX(micr_pattern, 'A', 1)), '|', TRIM(SUBSTRING_INDEX(micr_pattern, 'A', -1)))
  WHERE micr_pattern LIKE '%A%';
UPDATE bank_account SET micr_pattern = CONCAT(TRIM(micr_pattern), '|') WHERE micr_pattern NOT LIKE '%|%';

-- ------------------------------------------------------------ files come in document by document
ALTER TABLE import_job
  -- whose hand works on it, by the database's clock; every update names the token
  ADD COLUMN lease_token VARCHAR(36),
  ADD COLUMN lease_until DATETIME(6),
  ADD COLUMN tries INT NOT NULL DEFAULT 0,
  ADD COLUMN served_at DATETIME(6) NOT NULL DEFAULT '2000-01-01',
  ADD COLUMN wanted_by BIGINT REFERENCES person (id),
  DROP COLUMN alive_at;
UPDATE import_job SET mapping = CONCAT('{"columns":', mapping, '}') WHERE mapping IS NOT NULL;
UPDATE import_job SET mapping = '{}' WHERE mapping IS NULL;
ALTER TABLE import_job CHANGE mapping choices LONGTEXT NOT NULL;
-- Whoever sent it, said how to read it, or brought it in: none of them approves a payment of it (L7).
CREATE TABLE import_hand (
  job_id BIGINT NOT NULL REFERENCES import_job (id),
  person_id BIGINT NOT NULL REFERENCES person (id),
  PRIMARY KEY (job_id, person_id)
);
INSERT INTO import_hand SELECT id, person_id FROM import_job;
-- rows that wait are checked again under the new rules
UPDATE import_job SET state = 'RECEIVED' WHERE state IN ('CHECKING', 'CHECKED', 'COLUMNS', 'WANTED', 'BRINGING');
DELETE r FROM import_row r JOIN import_job j ON j.id = r.job_id WHERE j.state = 'RECEIVED';
ALTER TABLE import_row
  -- where it stands, in words: 17, or document 2, line 3
  ADD COLUMN place VARCHAR(60) NOT NULL DEFAULT '',
  -- the amount as it was read
  ADD COLUMN amount VARCHAR(40) NOT NULL DEFAULT '',
  -- the first line of its document, once its rows were put together
  ADD COLUMN first_line INT,
  ADD INDEX by_document (job_id, identity, line),
  ADD INDEX in_order (job_id, outcome, first_line, line);
UPDATE import_row SET place = line, first_line = line;
-- Who sends documents, by what they call themselves: endpoint, tax number, bank account, name …
CREATE TABLE vendor_identifier (
  scheme VARCHAR(30) NOT NULL,
  value VARCHAR(120) NOT NULL,
  vendor_id BIGINT NOT NULL REFERENCES vendor (id),
  kept_by BIGINT NOT NULL REFERENCES person (id),
  kept_at DATETIME(6) NOT NULL,
  PRIMARY KEY (scheme, value),
  INDEX (vendor_id)
);
-- Senders of one file that nobody knew.
CREATE TABLE import_party (
  job_id BIGINT NOT NULL REFERENCES import_job (id),
  position INT NOT NULL,
  name VARCHAR(120) NOT NULL,
  identifiers LONGTEXT NOT NULL,
  documents INT NOT NULL,
  PRIMARY KEY (job_id, position)
);
ALTER TABLE invoice ADD COLUMN import_id BIGINT REFERENCES import_job (id);

GRANT SELECT, INSERT ON import_hand TO ${appUser};
GRANT UPDATE (first_line) ON import_row TO ${appUser};
GRANT SELECT, INSERT ON vendor_identifier TO ${appUser};
GRANT SELECT, INSERT, DELETE ON import_party TO ${appUser};

-- ------------------------------------------------------------ no dead end: a payment can be taken out until it is posted
ALTER TABLE payment
  ADD COLUMN taken_out_at DATETIME(6),
  ADD COLUMN taken_out_by BIGINT REFERENCES person (id),
  ADD COLUMN taken_out_why VARCHAR(300),
  ADD CONSTRAINT taken_out_or_posted CHECK (taken_out_at IS NULL OR posted_entry_id IS NULL),
  ADD CONSTRAINT taken_out_by_somebody CHECK (taken_out_at IS NULL OR (taken_out_by IS NOT NULL AND taken_out_why <> ''));
-- What a batch pays: its claims without those whose payment was taken out.
CREATE VIEW standing_claim AS
  SELECT c.* FROM claim c LEFT JOIN payment p ON p.claim_id = c.id WHERE p.taken_out_at IS NULL;
GRANT SELECT ON standing_claim TO ${appUser};

-- ------------------------------------------------------------ advice is a document of its own, on plain paper
ALTER TABLE print_run ADD COLUMN kind VARCHAR(10) NOT NULL DEFAULT 'CHECK';
ALTER TABLE document
  ADD COLUMN kind VARCHAR(10) NOT NULL DEFAULT 'CHECK',
  ADD UNIQUE once_each (check_number_id, kind, serial),
  DROP INDEX check_number_id;

-- ------------------------------------------------------------ L7: every hand
ALTER TABLE invoice ADD COLUMN held_by BIGINT REFERENCES person (id);
-- Who released the hold of an invoice.
CREATE TABLE invoice_release (
  invoice_id BIGINT NOT NULL REFERENCES invoice (id),
  person_id BIGINT NOT NULL REFERENCES person (id),
  PRIMARY KEY (invoice_id, person_id)
);
-- Everyone who prepared a batch: made or changed it, entered or brought in an invoice of it, or released its hold.
CREATE VIEW hand AS
  SELECT batch_id, person_id FROM batch_hand
  UNION SELECT c.batch_id, e.made_by FROM standing_claim c JOIN claim_line l ON l.claim_id = c.id
    JOIN journal_entry e ON e.invoice_id = l.invoice_id AND e.kind = 'INVOICE' AND e.reverses_id IS NULL
  UNION SELECT c.batch_id, h.person_id FROM standing_claim c JOIN claim_line l ON l.claim_id = c.id
    JOIN invoice i ON i.id = l.invoice_id JOIN import_hand h ON h.job_id = i.import_id
  UNION SELECT c.batch_id, r.person_id FROM standing_claim c JOIN claim_line l ON l.claim_id = c.id
    JOIN invoice_release r ON r.invoice_id = l.invoice_id;
GRANT SELECT ON hand TO ${appUser};
GRANT SELECT, INSERT ON invoice_release TO ${appUser};
GRANT UPDATE (held_by) ON invoice TO ${appUser};

-- ------------------------------------------------------------ tries to sign in, per name and per origin
ALTER TABLE sign_in_attempt ADD COLUMN blocked BOOLEAN NOT NULL DEFAULT FALSE, ADD INDEX (origin, at);
GRANT UPDATE (good) ON sign_in_attempt TO ${appUser};
-- mail: whose hand works on it, by the database's clock
ALTER TABLE mail ADD COLUMN lease_token VARCHAR(36);
GRANT UPDATE (lease_token) ON mail TO ${appUser};

-- Roles that let money out, and the passwords of who holds them, are given by two.
ALTER TABLE person ADD COLUMN must_change_password BOOLEAN NOT NULL DEFAULT FALSE;
CREATE TABLE person_change (
  id BIGINT PRIMARY KEY,
  person_id BIGINT NOT NULL REFERENCES person (id),
  what VARCHAR(20) NOT NULL,
  roles VARCHAR(200) NOT NULL,
  password_hash VARCHAR(200) NOT NULL,
  proposed_by BIGINT NOT NULL REFERENCES person (id),
  proposed_at DATETIME(6) NOT NULL,
  state VARCHAR(20) NOT NULL,
  decided_by BIGINT REFERENCES person (id),
  decided_at DATETIME(6),
  waiting_person_id BIGINT AS (CASE WHEN state = 'PROPOSED' THEN person_id END) PERSISTENT,
  UNIQUE one_at_a_time (waiting_person_id, what),
  CONSTRAINT person_change_by_two CHECK (state <> 'CONFIRMED' OR (decided_by IS NOT NULL
    AND decided_by <> proposed_by AND decided_by <> person_id))
);
GRANT SELECT, INSERT, UPDATE (state, decided_by, decided_at) ON person_change TO ${appUser};

-- Routes come in force once a second person agreed, from the next day at the earliest.
ALTER TABLE approval_policy
  ADD COLUMN confirmed_by BIGINT REFERENCES person (id),
  ADD COLUMN confirmed_at DATETIME(6),
  ADD COLUMN confirmed_on DATE;
UPDATE approval_policy SET confirmed_by = made_by, confirmed_at = made_at, confirmed_on = in_force_from - INTERVAL 1 DAY;
GRANT UPDATE (confirmed_by, confirmed_at, confirmed_on) ON approval_policy TO ${appUser};

DROP TRIGGER approval_by_other_hands;
DROP TRIGGER remit_to_by_two;
DELIMITER //
-- L7: nobody approves what they prepared or changed, nor two steps, nor a payment to a vendor they changed lately; a deputy
-- acts under their own separations and those of whom they stand in for.
CREATE TRIGGER approval_by_other_hands BEFORE INSERT ON approval FOR EACH ROW
BEGIN
  IF NEW.outcome = 'APPROVED' THEN
    IF EXISTS (
        SELECT 1 FROM hand h
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
-- The other way round: whoever approved a payment does not release the hold of its invoice.
CREATE TRIGGER release_by_other_hands BEFORE INSERT ON invoice_release FOR EACH ROW
BEGIN
  IF EXISTS (
      SELECT 1 FROM reservation r JOIN batch b ON b.id = r.batch_id
      JOIN approval a ON a.batch_id = b.id AND a.round = b.approval_round AND a.outcome = 'APPROVED'
      WHERE r.invoice_id = NEW.invoice_id AND NEW.person_id IN (a.person_id, a.on_behalf_of)) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L7: nobody releases what they approved';
  END IF;
END//
-- A remit-to becomes only what two people agreed on last, sealed bank details included.
CREATE TRIGGER remit_to_by_two BEFORE UPDATE ON remit_to FOR EACH ROW
BEGIN
  IF NEW.vendor_id <> OLD.vendor_id OR NOT EXISTS (
      SELECT 1 FROM vendor_change v
      WHERE v.id = (SELECT w.id FROM vendor_change w WHERE w.remit_to_id = NEW.id AND w.state = 'CONFIRMED'
          ORDER BY w.decided_at DESC, w.id DESC LIMIT 1)
        AND v.decided_by <> v.proposed_by
        AND BINARY v.after_payee = BINARY NEW.payee AND BINARY v.after_address = BINARY NEW.address
        AND v.after_bank_key = NEW.bank_key AND v.after_bank_sealed <=> NEW.bank_details_sealed) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L7: an address or bank details change by two people';
  END IF;
END//
CREATE TRIGGER vendor_change_begins BEFORE INSERT ON vendor_change FOR EACH ROW
BEGIN
  IF NEW.state <> 'PROPOSED' OR NEW.decided_by IS NOT NULL THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L7: a change begins as a proposal';
  END IF;
END//
CREATE TRIGGER person_change_begins BEFORE INSERT ON person_change FOR EACH ROW
BEGIN
  IF NEW.state <> 'PROPOSED' OR NEW.decided_by IS NOT NULL THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L7: a change begins as a proposal';
  END IF;
END//
CREATE TRIGGER person_change_stands BEFORE UPDATE ON person_change FOR EACH ROW
BEGIN
  IF OLD.state <> 'PROPOSED' THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L7: a change is decided once';
  END IF;
END//
-- A role that lets money out is held only after a second person agreed to exactly that.
CREATE TRIGGER role_by_two BEFORE INSERT ON person_role FOR EACH ROW
BEGIN
  IF NEW.role IN ('APPROVER', 'CONTROLLER')
    AND NOT EXISTS (SELECT 1 FROM person p WHERE p.id = NEW.person_id AND p.demo)
    AND NOT EXISTS (SELECT 1 FROM person_change c WHERE c.person_id = NEW.person_id AND c.what = 'ROLES'
      AND c.state = 'CONFIRMED' AND FIND_IN_SET(NEW.role, c.roles)) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L7: such a role is given by two people';
  END IF;
END//
CREATE TRIGGER policy_begins BEFORE INSERT ON approval_policy FOR EACH ROW
BEGIN
  IF NEW.confirmed_by IS NOT NULL THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L7: routes begin as a proposal';
  END IF;
END//
CREATE TRIGGER policy_by_two BEFORE UPDATE ON approval_policy FOR EACH ROW
BEGIN
  IF OLD.confirmed_by IS NOT NULL OR NEW.confirmed_by = OLD.made_by THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L7: routes are confirmed once, by a second person';
  END IF;
END//

-- ------------------------------------------------------------ what left the house stands
DROP TRIGGER claim_line_stands//
DROP TRIGGER claim_line_stays//
CREATE TRIGGER claim_line_comes BEFORE INSERT ON claim_line FOR EACH ROW
BEGIN
  IF EXISTS (SELECT 1 FROM payment p WHERE p.claim_id = NEW.claim_id) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L4: the claim has its number, its lines stand';
  END IF;
END//
CREATE TRIGGER claim_line_stands BEFORE UPDATE ON claim_line FOR EACH ROW
BEGIN
  IF EXISTS (SELECT 1 FROM payment p WHERE p.claim_id IN (OLD.claim_id, NEW.claim_id)) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L4: the claim has its number, its lines stand';
  END IF;
END//
CREATE TRIGGER claim_line_stays BEFORE DELETE ON claim_line FOR EACH ROW
BEGIN
  IF EXISTS (SELECT 1 FROM payment p WHERE p.claim_id = OLD.claim_id) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L4: the claim has its number, its lines stand';
  END IF;
END//
CREATE TRIGGER claim_stands BEFORE UPDATE ON claim FOR EACH ROW
BEGIN
  IF EXISTS (SELECT 1 FROM payment p WHERE p.claim_id = OLD.id)
    AND NOT (NEW.batch_id <=> OLD.batch_id AND NEW.vendor_id <=> OLD.vendor_id AND NEW.remit_to_id <=> OLD.remit_to_id
      AND BINARY NEW.payee <=> BINARY OLD.payee AND BINARY NEW.address <=> BINARY OLD.address
      AND NEW.currency <=> OLD.currency AND NEW.amount_minor <=> OLD.amount_minor AND NEW.digest <=> OLD.digest
      AND NEW.bank_sealed <=> OLD.bank_sealed AND NEW.bank_key <=> OLD.bank_key) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L4: the claim has its number, it stands';
  END IF;
END//
CREATE TRIGGER payment_stands BEFORE UPDATE ON payment FOR EACH ROW
BEGIN
  IF (OLD.posted_entry_id IS NOT NULL AND NOT NEW.posted_entry_id <=> OLD.posted_entry_id)
    OR (OLD.void_entry_id IS NOT NULL AND NOT NEW.void_entry_id <=> OLD.void_entry_id)
    OR (OLD.taken_out_at IS NOT NULL AND NOT NEW.taken_out_at <=> OLD.taken_out_at) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L4: what became of a payment stands';
  END IF;
END//
CREATE TRIGGER batch_stands BEFORE UPDATE ON batch FOR EACH ROW
BEGIN
  IF NEW.bank_account_id <> OLD.bank_account_id OR NEW.method <> OLD.method
    OR ((NEW.check_date <> OLD.check_date OR NEW.ledger_date <> OLD.ledger_date)
      AND EXISTS (SELECT 1 FROM payment p WHERE p.batch_id = OLD.id)) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L6: the batch has its numbers, its days stand';
  END IF;
END//
CREATE TRIGGER account_goes_on BEFORE UPDATE ON bank_account FOR EACH ROW
BEGIN
  IF NEW.next_number < OLD.next_number OR NEW.first_number <> OLD.first_number
    OR NEW.next_file_serial < OLD.next_file_serial OR NEW.currency <> OLD.currency
    OR NEW.cash_account_id <> OLD.cash_account_id THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L3: numbers of an account go on only';
  END IF;
END//
DELIMITER ;

REVOKE UPDATE ON payment FROM ${appUser};
GRANT UPDATE (posted_entry_id, void_entry_id, taken_out_at, taken_out_by, taken_out_why, version) ON payment TO ${appUser};
REVOKE UPDATE ON check_number FROM ${appUser};
GRANT UPDATE (state, payment_id, explanation, state_date, steps, version) ON check_number TO ${appUser};
REVOKE UPDATE ON document FROM ${appUser};
GRANT UPDATE (answer, answer_why, answered_at, answered_by, version) ON document TO ${appUser};
REVOKE UPDATE ON bank_event FROM ${appUser};
GRANT UPDATE (file_id, never_reported, version) ON bank_event TO ${appUser};
REVOKE UPDATE ON bank_file FROM ${appUser};
GRANT UPDATE (state, answered_at, answered_by, answer_note, version) ON bank_file TO ${appUser};
REVOKE UPDATE ON period_lock FROM ${appUser};
GRANT UPDATE (unlocked_at, unlocked_by, unlock_reason) ON period_lock TO ${appUser};
