-- What the bank tells is kept as it was told, movement by movement; what becomes of a movement stands beside it, and as much of
-- it as nothing stands for is open.

ALTER TABLE bank_account
  -- until when the bank is told which checks it asks about are paid or returned; the company's time
  ADD COLUMN decision_hour TIME;
ALTER TABLE bank_file_layout
  ADD COLUMN file_use VARCHAR(20) NOT NULL DEFAULT 'POSITIVE_PAY';
ALTER TABLE bank_file_layout ALTER COLUMN file_use DROP DEFAULT;

CREATE TABLE bank_report (
  id BIGINT PRIMARY KEY,
  bank_account_id BIGINT NOT NULL REFERENCES bank_account (id),
  -- a statement with balances, a list of paid checks, or what somebody typed
  kind VARCHAR(20) NOT NULL,
  -- how it was written: camt.053, or the layout's name and version
  format VARCHAR(100) NOT NULL,
  file_name VARCHAR(120) NOT NULL,
  -- as the bank wrote it, packed (gzip)
  content LONGBLOB,
  content_hash VARCHAR(64),
  number VARCHAR(40) NOT NULL,
  from_day DATE NOT NULL,
  to_day DATE NOT NULL,
  currency VARCHAR(3) NOT NULL,
  opening_minor BIGINT,
  closing_minor BIGINT,
  movements INT NOT NULL,
  out_minor BIGINT NOT NULL,
  in_minor BIGINT NOT NULL,
  -- why it was read although it does not follow the one before
  gap VARCHAR(300) NOT NULL,
  -- the statements of an account one after the other, 1, 2, 3 …; null for what is none
  place INT,
  read_at DATETIME(6) NOT NULL,
  read_by BIGINT NOT NULL REFERENCES person (id),
  CONSTRAINT read_once UNIQUE (bank_account_id, content_hash),
  CONSTRAINT statement_in_its_place UNIQUE (bank_account_id, place),
  CONSTRAINT kind_of_report CHECK (kind IN ('STATEMENT', 'PAID_CHECKS', 'BY_HAND')),
  CONSTRAINT statement_has_balances CHECK ((kind = 'STATEMENT') = (opening_minor IS NOT NULL AND closing_minor IS NOT NULL
    AND place IS NOT NULL)),
  CONSTRAINT statement_adds_up CHECK (opening_minor IS NULL OR opening_minor + in_minor - out_minor = closing_minor),
  CONSTRAINT days_of_report CHECK (from_day <= to_day)
);
CREATE TABLE bank_movement (
  id BIGINT PRIMARY KEY,
  report_id BIGINT NOT NULL REFERENCES bank_report (id),
  bank_account_id BIGINT NOT NULL REFERENCES bank_account (id),
  -- in its report, from 1
  position INT NOT NULL,
  bank_date DATE NOT NULL,
  currency VARCHAR(3) NOT NULL,
  -- above zero what came in
  amount_minor BIGINT NOT NULL,
  -- what of it nothing stands for yet; moved by what is written into bank_match, and by nothing else
  open_minor BIGINT NOT NULL,
  is_open BOOLEAN AS (CASE WHEN open_minor <> 0 THEN 1 END) PERSISTENT,
  -- the number of a check as the bank wrote it, and its digits; what it means where the bank read it wrong
  number_text VARCHAR(40) NOT NULL,
  number BIGINT,
  read_as BIGINT,
  meant BIGINT AS (COALESCE(read_as, number)) PERSISTENT,
  text VARCHAR(300) NOT NULL,
  reference VARCHAR(80) NOT NULL,
  reversal BOOLEAN NOT NULL,
  version BIGINT NOT NULL,
  UNIQUE (report_id, position),
  INDEX (bank_account_id, is_open, bank_date),
  INDEX by_number (bank_account_id, meant, report_id),
  INDEX (is_open),
  INDEX (bank_account_id, bank_date)
);
CREATE TABLE bank_match (
  id BIGINT PRIMARY KEY,
  movement_id BIGINT NOT NULL REFERENCES bank_movement (id),
  bank_account_id BIGINT NOT NULL REFERENCES bank_account (id),
  kind VARCHAR(20) NOT NULL,
  -- one of these stands for it; none where the bank owes it
  payment_id BIGINT REFERENCES payment (id),
  entry_id BIGINT REFERENCES journal_entry (id),
  other_movement_id BIGINT REFERENCES bank_movement (id),
  claim_id BIGINT REFERENCES bank_match (id),
  -- the kind of report that told the same again
  told_by VARCHAR(20),
  amount_minor BIGINT NOT NULL,
  -- from this day on both sides have it
  on_day DATE NOT NULL,
  answer VARCHAR(20) NOT NULL,
  why VARCHAR(300) NOT NULL,
  made_at DATETIME(6) NOT NULL,
  made_by BIGINT NOT NULL REFERENCES person (id),
  -- from this day on it stands no more
  undone_on DATE,
  undone_at DATETIME(6),
  undone_by BIGINT REFERENCES person (id),
  undone_why VARCHAR(300) NOT NULL DEFAULT '',
  standing_payment_id BIGINT AS (CASE WHEN undone_on IS NULL THEN payment_id END) PERSISTENT UNIQUE,
  standing_entry_id BIGINT AS (CASE WHEN undone_on IS NULL THEN entry_id END) PERSISTENT,
  -- a transfer stands on the statements of two accounts
  UNIQUE (standing_entry_id, bank_account_id),
  -- what was told before is told again by each kind of report once
  told_id BIGINT AS (CASE WHEN undone_on IS NULL AND kind = 'TOLD' THEN other_movement_id END) PERSISTENT,
  UNIQUE (told_id, told_by),
  CONSTRAINT what_stands_for_it CHECK (
    (payment_id IS NOT NULL) = (kind = 'PAYMENT') AND (entry_id IS NOT NULL) = (kind = 'ENTRY')
    AND (other_movement_id IS NOT NULL) = (kind IN ('TOLD', 'TURNED')) AND (claim_id IS NOT NULL) = (kind = 'CORRECTION')
    AND (told_by IS NOT NULL) = (kind = 'TOLD')
    AND kind IN ('PAYMENT', 'ENTRY', 'TOLD', 'TURNED', 'CLAIM', 'CORRECTION')),
  CONSTRAINT undone_for_a_reason CHECK ((undone_on IS NULL) = (undone_why = '') AND (undone_on IS NULL) = (undone_by IS NULL)
    AND (undone_on IS NULL) = (undone_at IS NULL)),
  INDEX (movement_id),
  INDEX (bank_account_id, kind, on_day),
  INDEX (other_movement_id),
  INDEX (claim_id)
);
-- What words of a movement were entered as, so that the next is proposed.
CREATE TABLE bank_words (
  id BIGINT PRIMARY KEY,
  bank_account_id BIGINT NOT NULL REFERENCES bank_account (id),
  words VARCHAR(120) NOT NULL,
  account_id BIGINT NOT NULL REFERENCES ledger_account (id),
  remembered_at DATETIME(6) NOT NULL,
  remembered_by BIGINT NOT NULL REFERENCES person (id),
  UNIQUE (bank_account_id, words)
);
-- Pay or return, said before the bank's hour; the newest counts.
CREATE TABLE bank_decision (
  movement_id BIGINT PRIMARY KEY REFERENCES bank_movement (id),
  pays BOOLEAN NOT NULL,
  decided_at DATETIME(6) NOT NULL,
  decided_by BIGINT NOT NULL REFERENCES person (id)
);
-- Bank and ledger beside each other on a day, as somebody signed them.
CREATE TABLE reconciliation (
  id BIGINT PRIMARY KEY,
  bank_account_id BIGINT NOT NULL REFERENCES bank_account (id),
  as_of DATE NOT NULL,
  currency VARCHAR(3) NOT NULL,
  bank_minor BIGINT NOT NULL,
  outstanding_minor BIGINT NOT NULL,
  transit_minor BIGINT NOT NULL,
  explained_minor BIGINT NOT NULL,
  ledger_minor BIGINT NOT NULL,
  -- all of its rows
  content LONGTEXT NOT NULL CHECK (JSON_VALID(content)),
  content_hash VARCHAR(64) NOT NULL,
  note VARCHAR(300) NOT NULL,
  signed_at DATETIME(6) NOT NULL,
  signed_by BIGINT NOT NULL REFERENCES person (id),
  CONSTRAINT explained_to_the_cent CHECK (
    bank_minor - outstanding_minor + transit_minor + explained_minor = ledger_minor),
  INDEX (bank_account_id, as_of)
);

-- Checks recorded as paid so far were told by hand: each gets its movement.
INSERT INTO bank_report
  SELECT NEXT VALUE FOR work_seq, x.* FROM (
    SELECT p.bank_account_id, 'BY_HAND' AS kind, 'by hand' AS format, '' AS file_name, NULL AS content, NULL AS content_hash,
      '' AS number, MIN(p.state_date), MAX(p.state_date), p.currency, NULL AS opening, NULL AS closing, COUNT(*),
      SUM(p.amount_minor), 0 AS came_in, '' AS gap, NULL AS place, MAX(e.at), MAX(e.person_id)
    FROM payment p JOIN payment_event e ON e.payment_id = p.id AND e.step = p.steps
    WHERE p.state = 'CLEARED' GROUP BY p.bank_account_id, p.currency) x;
INSERT INTO bank_movement (id, report_id, bank_account_id, position, bank_date, currency, amount_minor, open_minor, number_text,
    number, text, reference, reversal, version)
  SELECT NEXT VALUE FOR work_seq, x.* FROM (
    SELECT r.id AS report_id, p.bank_account_id, ROW_NUMBER() OVER (PARTITION BY r.id ORDER BY p.state_date, p.id) AS position,
      p.state_date, p.currency, -p.amount_minor AS amount, 0 AS open_amount,
      COALESCE(CONCAT(s.prefix, n.number), '') AS number_text, n.number, '' AS text, CONCAT('payment ', p.id) AS reference,
      FALSE AS reversal, 0 AS version
    FROM payment p JOIN bank_report r ON r.bank_account_id = p.bank_account_id AND r.currency = p.currency
    LEFT JOIN check_number n ON n.live_payment_id = p.id LEFT JOIN number_series s ON s.id = n.series_id
    WHERE p.state = 'CLEARED') x;
INSERT INTO bank_match (id, movement_id, bank_account_id, kind, payment_id, amount_minor, on_day, answer, why, made_at, made_by)
  SELECT NEXT VALUE FOR work_seq, x.* FROM (
    SELECT m.id AS movement_id, m.bank_account_id, 'PAYMENT' AS kind, p.id AS payment_id, -p.amount_minor AS amount, p.state_date, '' AS answer,
      '' AS why, e.at, e.person_id
    FROM payment p JOIN bank_movement m ON m.reference = CONCAT('payment ', p.id)
    JOIN payment_event e ON e.payment_id = p.id AND e.step = p.steps WHERE p.state = 'CLEARED') x;

DELIMITER //
-- What is open of a movement follows from what stands for it.
CREATE TRIGGER movement_is_open BEFORE INSERT ON bank_movement FOR EACH ROW
BEGIN
  SET NEW.open_minor = NEW.amount_minor;
END//
CREATE TRIGGER match_takes AFTER INSERT ON bank_match FOR EACH ROW
BEGIN
  UPDATE bank_movement SET open_minor = open_minor - NEW.amount_minor, version = version + 1 WHERE id = NEW.movement_id;
END//
CREATE TRIGGER match_gives_back AFTER UPDATE ON bank_match FOR EACH ROW
BEGIN
  IF OLD.undone_on IS NULL AND NEW.undone_on IS NOT NULL THEN
    UPDATE bank_movement SET open_minor = open_minor + OLD.amount_minor, version = version + 1 WHERE id = OLD.movement_id;
  END IF;
END//
CREATE TRIGGER match_undone_once BEFORE UPDATE ON bank_match FOR EACH ROW
BEGIN
  IF OLD.undone_on IS NOT NULL THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L4: what was taken back stands';
  END IF;
END//
-- L4: a payment is matched with as much as it paid.
CREATE TRIGGER match_of_the_whole_payment BEFORE INSERT ON bank_match FOR EACH ROW
BEGIN
  IF NEW.kind = 'PAYMENT' AND NOT EXISTS (SELECT 1 FROM payment p JOIN bank_movement m ON m.id = NEW.movement_id
      WHERE p.id = NEW.payment_id AND p.bank_account_id = m.bank_account_id AND p.currency = m.currency
        AND p.amount_minor = -NEW.amount_minor AND p.posted_entry_id IS NOT NULL) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L4: the bank paid another amount than the payment has';
  END IF;
END//
DELIMITER ;

-- Cash the ledger moved and no movement stands for yet: entries that are no payment, payments that go without a number, and
-- what undid a payment its bank had paid. Checks are outstanding; what an account began with is none of these.
CREATE VIEW bank_in_transit AS
  SELECT a.id AS bank_account_id, e.id AS entry_id, NULL AS payment_id, e.ledger_date, e.text,
    SUM(l.debit_minor - l.credit_minor) AS moved_minor
  FROM journal_entry e JOIN journal_line l ON l.entry_id = e.id
  JOIN bank_account a ON a.cash_account_id = l.account_id AND a.currency = l.currency
  LEFT JOIN bank_match k ON k.standing_entry_id = e.id AND k.bank_account_id = a.id
  WHERE e.kind IN ('BANK', 'REFUND') AND k.id IS NULL
    -- one that was turned, and the one that turns it, are nothing; unless the bank had the first
    AND NOT EXISTS (SELECT 1 FROM journal_entry x WHERE x.reverses_id = e.id)
    AND (e.reverses_id IS NULL OR EXISTS (SELECT 1 FROM bank_match x WHERE x.standing_entry_id = e.reverses_id
      AND x.bank_account_id = a.id))
  GROUP BY a.id, e.id
  UNION ALL
  SELECT p.bank_account_id, e.id, p.id, e.ledger_date, e.text, -p.amount_minor
  FROM payment p JOIN batch b ON b.id = p.batch_id AND b.method <> 'CHECK'
  JOIN way_to_pay w ON w.id = b.way_id AND w.owed_account_id IS NULL
  JOIN journal_entry e ON e.id = p.posted_entry_id
  WHERE p.state = 'OUTSTANDING'
  UNION ALL
  SELECT p.bank_account_id, e.id, NULL, e.ledger_date, e.text, p.amount_minor
  FROM payment p JOIN bank_match s ON s.standing_payment_id = p.id JOIN journal_entry e ON e.id = p.undone_entry_id
  LEFT JOIN bank_match k ON k.standing_entry_id = e.id AND k.bank_account_id = p.bank_account_id
  WHERE p.state IN ('VOIDED', 'REVERSED') AND k.id IS NULL;
-- What statements say and the ledger does not have: what waits for an answer, what the bank owes and what it gave back; the
-- same of what a list had told before.
CREATE VIEW bank_beside_ledger AS
  SELECT m.bank_account_id, m.bank_date, m.open_minor AS amount_minor
  FROM bank_movement m JOIN bank_report r ON r.id = m.report_id AND r.place IS NOT NULL WHERE m.is_open = 1
  UNION ALL
  SELECT k.bank_account_id, m.bank_date, k.amount_minor
  FROM bank_match k JOIN bank_movement m ON m.id = k.movement_id
  JOIN bank_report r ON r.id = m.report_id AND r.place IS NOT NULL
  WHERE k.kind IN ('CLAIM', 'CORRECTION') AND k.undone_on IS NULL
  UNION ALL
  SELECT m.bank_account_id, s.bank_date, m.open_minor
  FROM bank_movement m JOIN bank_match t ON t.told_id = m.id JOIN bank_movement s ON s.id = t.movement_id
  JOIN bank_report r ON r.id = s.report_id AND r.place IS NOT NULL WHERE m.is_open = 1
  UNION ALL
  SELECT k.bank_account_id, s.bank_date, k.amount_minor
  FROM bank_match k JOIN bank_match t ON t.told_id = k.movement_id JOIN bank_movement s ON s.id = t.movement_id
  JOIN bank_report r ON r.id = s.report_id AND r.place IS NOT NULL
  WHERE k.kind IN ('CLAIM', 'CORRECTION') AND k.undone_on IS NULL;
ALTER TABLE journal_entry ADD INDEX by_kind (kind, ledger_date);

GRANT SELECT ON bank_in_transit TO ${appUser};
GRANT SELECT ON bank_beside_ledger TO ${appUser};
GRANT SELECT, INSERT ON bank_report TO ${appUser};
GRANT SELECT, INSERT ON bank_movement TO ${appUser};
GRANT UPDATE (read_as, version) ON bank_movement TO ${appUser};
GRANT SELECT, INSERT ON bank_match TO ${appUser};
GRANT UPDATE (undone_on, undone_at, undone_by, undone_why) ON bank_match TO ${appUser};
GRANT SELECT, INSERT, UPDATE ON bank_words TO ${appUser};
GRANT SELECT, INSERT, UPDATE ON bank_decision TO ${appUser};
GRANT SELECT, INSERT ON reconciliation TO ${appUser};
