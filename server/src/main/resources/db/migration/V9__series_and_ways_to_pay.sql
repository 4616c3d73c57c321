-- A bank account is cash. What carries a payment from it, and the runs of check numbers, are rows of their own.

-- ------------------------------------------------------------ ways to pay
CREATE TABLE way_to_pay (
  id BIGINT PRIMARY KEY,
  bank_account_id BIGINT NOT NULL REFERENCES bank_account (id),
  name VARCHAR(60) NOT NULL,
  method VARCHAR(20) NOT NULL,
  -- the account's first way is the one taken where none is named
  position INT NOT NULL,
  version BIGINT NOT NULL,
  UNIQUE (bank_account_id, name),
  UNIQUE (bank_account_id, position),
  -- what a batch holds of its way
  UNIQUE (id, bank_account_id, method)
);
INSERT INTO way_to_pay (id, bank_account_id, name, method, position, version)
  SELECT NEXT VALUE FOR work_seq, id,
    CASE method WHEN 'CHECK' THEN 'Checks' ELSE 'Credit transfers' END, method, 1, 0
  FROM bank_account ORDER BY position;

-- ------------------------------------------------------------ number series
CREATE TABLE number_series (
  id BIGINT PRIMARY KEY,
  way_id BIGINT NOT NULL UNIQUE REFERENCES way_to_pay (id),
  prefix VARCHAR(8) NOT NULL,
  stock VARCHAR(20) NOT NULL,
  first_number BIGINT NOT NULL,
  next_number BIGINT NOT NULL,
  micr_pattern VARCHAR(60) NOT NULL,
  currency_word VARCHAR(20) NOT NULL,
  validity VARCHAR(80) NOT NULL,
  version BIGINT NOT NULL,
  CONSTRAINT numbers_go_up CHECK (next_number >= first_number)
);
INSERT INTO number_series
  SELECT NEXT VALUE FOR work_seq, w.id, '', a.stock, a.first_number, a.next_number, a.micr_pattern, a.currency_word,
    a.validity, 0
  FROM bank_account a JOIN way_to_pay w ON w.bank_account_id = a.id WHERE w.method = 'CHECK' ORDER BY a.position;

DROP VIEW check_register;
DROP TRIGGER check_number_stands;
ALTER TABLE check_number ADD COLUMN series_id BIGINT AFTER id;
UPDATE check_number n JOIN way_to_pay w ON w.bank_account_id = n.bank_account_id JOIN number_series s ON s.way_id = w.id
  SET n.series_id = s.id;
ALTER TABLE check_number
  DROP FOREIGN KEY check_number_ibfk_1,
  DROP INDEX l3_once,
  DROP INDEX bank_account_id,
  DROP COLUMN bank_account_id,
  DROP COLUMN prefix,
  DROP COLUMN stock,
  MODIFY series_id BIGINT NOT NULL,
  ADD FOREIGN KEY (series_id) REFERENCES number_series (id),
  ADD CONSTRAINT l3_once UNIQUE (series_id, number),
  ADD INDEX (series_id, state);
-- What the register says of each number: its own state, or that of the payment it carries once the ledger has it (L3).
CREATE VIEW check_register AS
  SELECT n.id, n.series_id, n.number, n.payment_id, COALESCE(c.state, n.state) AS state,
    COALESCE(c.state_date, n.state_date) AS state_date, COALESCE(c.state_why, n.explanation) AS explanation
  FROM check_number n LEFT JOIN payment c ON c.id = n.live_payment_id AND c.posted_entry_id IS NOT NULL;
-- A series as others ask for it: with the account it draws on.
CREATE VIEW series_of_account AS
  SELECT s.id, s.way_id, w.bank_account_id, w.name AS way_name, a.name AS account_name, a.currency, a.positive_pay,
    s.first_number, s.next_number, a.position * 1000 + w.position AS place
  FROM number_series s JOIN way_to_pay w ON w.id = s.way_id JOIN bank_account a ON a.id = w.bank_account_id;

-- ------------------------------------------------------------ a batch has one account and one way
DROP TRIGGER batch_stands;
ALTER TABLE batch ADD COLUMN way_id BIGINT AFTER bank_account_id;
UPDATE batch b JOIN way_to_pay w ON w.bank_account_id = b.bank_account_id SET b.way_id = w.id;
ALTER TABLE batch
  MODIFY way_id BIGINT NOT NULL,
  ADD CONSTRAINT way_of_its_account FOREIGN KEY (way_id, bank_account_id, method)
    REFERENCES way_to_pay (id, bank_account_id, method);

DROP TRIGGER account_goes_on;
ALTER TABLE bank_account
  DROP CONSTRAINT numbers_go_up,
  DROP COLUMN method,
  DROP COLUMN stock,
  DROP COLUMN first_number,
  DROP COLUMN next_number,
  DROP COLUMN micr_pattern,
  DROP COLUMN currency_word,
  DROP COLUMN validity;

DROP TRIGGER number_needs_approval;
DROP TRIGGER check_number_carries;
DELIMITER //
CREATE TRIGGER batch_stands BEFORE UPDATE ON batch FOR EACH ROW
BEGIN
  IF NEW.purpose <> OLD.purpose OR NEW.bank_account_id <> OLD.bank_account_id OR NEW.way_id <> OLD.way_id
    OR NEW.method <> OLD.method
    OR ((NEW.check_date <> OLD.check_date OR NEW.ledger_date <> OLD.ledger_date)
      AND EXISTS (SELECT 1 FROM payment p WHERE p.batch_id = OLD.id)) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L6: the batch has its numbers, its days stand';
  END IF;
END//
CREATE TRIGGER account_goes_on BEFORE UPDATE ON bank_account FOR EACH ROW
BEGIN
  IF NEW.next_file_serial < OLD.next_file_serial OR NEW.currency <> OLD.currency
    OR NEW.cash_account_id <> OLD.cash_account_id THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L4: what an account is stands';
  END IF;
END//
CREATE TRIGGER series_goes_on BEFORE UPDATE ON number_series FOR EACH ROW
BEGIN
  IF NEW.next_number < OLD.next_number OR NEW.first_number <> OLD.first_number OR NEW.way_id <> OLD.way_id
    OR NEW.prefix <> OLD.prefix OR NEW.stock <> OLD.stock THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L3: numbers of a series go on only';
  END IF;
END//
CREATE TRIGGER check_number_stands BEFORE UPDATE ON check_number FOR EACH ROW
BEGIN
  IF NEW.number <> OLD.number OR NEW.series_id <> OLD.series_id THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L3: a number never changes';
  END IF;
END//
CREATE TRIGGER way_stands BEFORE UPDATE ON way_to_pay FOR EACH ROW
BEGIN
  IF NEW.bank_account_id <> OLD.bank_account_id OR NEW.method <> OLD.method THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L12: what carries a payment stands';
  END IF;
END//
-- L12: a number carries a payment of the batch whose way its series belongs to, and of no other.
CREATE PROCEDURE must_go_this_way(IN paying BIGINT, IN series BIGINT)
BEGIN
  IF NOT EXISTS (SELECT 1 FROM payment p JOIN batch b ON b.id = p.batch_id JOIN number_series s ON s.way_id = b.way_id
      WHERE p.id = paying AND s.id = series) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L12: the payment goes another way than this series';
  END IF;
END//
CREATE TRIGGER number_needs_approval BEFORE INSERT ON check_number FOR EACH ROW
BEGIN
  IF NEW.payment_id IS NOT NULL THEN
    CALL must_go_this_way(NEW.payment_id, NEW.series_id);
    CALL must_be_approved(NEW.payment_id);
  END IF;
END//
-- The paper of a payment the ledger has is not called something else afterwards.
CREATE TRIGGER check_number_carries BEFORE UPDATE ON check_number FOR EACH ROW
BEGIN
  IF NEW.payment_id IS NOT NULL AND NOT NEW.payment_id <=> OLD.payment_id THEN
    CALL must_go_this_way(NEW.payment_id, NEW.series_id);
    CALL must_be_approved(NEW.payment_id);
  END IF;
  IF OLD.state = 'PRINTED' AND (NEW.state <> OLD.state OR NOT NEW.payment_id <=> OLD.payment_id)
    AND EXISTS (SELECT 1 FROM payment p WHERE p.id = OLD.payment_id AND p.posted_entry_id IS NOT NULL) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L3: the number carries a payment that is posted';
  END IF;
END//
DELIMITER ;

-- ------------------------------------------------------------ what a line pays
ALTER TABLE claim_line
  MODIFY invoice_id BIGINT,
  MODIFY invoice_date DATE,
  -- the claim of the payment that is replaced, whose line this keeps
  ADD COLUMN kept_of_claim_id BIGINT REFERENCES claim (id),
  ADD CONSTRAINT item_of_its_kind CHECK ((invoice_id IS NOT NULL) = (kind IN ('INVOICE', 'CREDIT'))),
  ADD CONSTRAINT kind_of_line CHECK (kind IN ('INVOICE', 'CREDIT', 'PREPAYMENT', 'DIRECT'));
-- The accounts of a line without an invoice: one of a prepayment, one or more of a direct payment.
CREATE TABLE claim_line_account (
  line_id BIGINT NOT NULL REFERENCES claim_line (id) ON DELETE CASCADE,
  position INT NOT NULL,
  account_id BIGINT NOT NULL REFERENCES ledger_account (id),
  job VARCHAR(20) NOT NULL,
  amount_minor BIGINT NOT NULL,
  PRIMARY KEY (line_id, position)
);
DELIMITER //
CREATE PROCEDURE line_must_be_free(IN line BIGINT)
BEGIN
  IF EXISTS (SELECT 1 FROM claim_line l JOIN payment p ON p.claim_id = l.claim_id WHERE l.id = line) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L4: the claim has its number, its lines stand';
  END IF;
END//
CREATE TRIGGER claim_line_account_comes BEFORE INSERT ON claim_line_account FOR EACH ROW
  CALL line_must_be_free(NEW.line_id)//
CREATE TRIGGER claim_line_account_stays BEFORE DELETE ON claim_line_account FOR EACH ROW
  CALL line_must_be_free(OLD.line_id)//
DELIMITER ;
GRANT SELECT, INSERT, DELETE ON claim_line_account TO ${appUser};

-- ------------------------------------------------------------ what stands on a document
-- Kept as it was printed; no row of it ever changes.
CREATE TABLE document_content (
  document_id BIGINT PRIMARY KEY REFERENCES document (id),
  layout VARCHAR(40) NOT NULL,
  content LONGTEXT NOT NULL CHECK (JSON_VALID(content))
);
-- What was printed so far said what company, account and claim say now: none of them could be changed until today.
SET SESSION group_concat_max_len = 268435456;
INSERT INTO document_content
  SELECT d.id, 'letter-1', JSON_OBJECT(
      'company', o.name, 'companyAddress', o.address, 'bank', a.bank_name, 'currencyWord', s.currency_word,
      'validity', s.validity, 'payee', c.payee, 'address', c.address, 'currency', c.currency,
      'amountMinor', c.amount_minor, 'checkDate', b.check_date, 'number', n.number, 'note', c.stub_note,
      'entries', x.entries, 'rows', JSON_COMPACT(x.stub))
  FROM document d JOIN check_number n ON n.id = d.check_number_id JOIN number_series s ON s.id = n.series_id
  JOIN payment p ON p.id = d.payment_id JOIN claim c ON c.id = p.claim_id JOIN batch b ON b.id = c.batch_id
  JOIN bank_account a ON a.id = b.bank_account_id CROSS JOIN company o
  JOIN (
    SELECT y.claim_id, SUM(y.entries) AS entries, JSON_ARRAYAGG(JSON_OBJECT(
        'reference', y.reference, 'date', y.invoice_date, 'settlesMinor', y.settles, 'discountMinor', y.discount,
        'paidMinor', y.settles - y.discount) ORDER BY y.last, y.kind DESC, y.invoice_date, y.invoice_id) AS stub
    FROM (
      SELECT l.claim_id, 0 AS last, l.kind, l.invoice_date, l.invoice_id, l.reference, l.discount_minor AS discount,
        CASE l.kind WHEN 'CREDIT' THEN -l.gross_minor ELSE l.gross_minor END AS settles, 1 AS entries
      FROM claim_line l WHERE NOT l.hidden
      -- what is not listed by itself is summed up in one row
      UNION ALL SELECT l.claim_id, 1, '', NULL, NULL, CONCAT(COUNT(*), IF(COUNT(*) = 1, ' more entry', ' more entries')),
        SUM(l.discount_minor), SUM(CASE l.kind WHEN 'CREDIT' THEN -l.gross_minor ELSE l.gross_minor END), COUNT(*)
      FROM claim_line l WHERE l.hidden GROUP BY l.claim_id) y
    GROUP BY y.claim_id) x ON x.claim_id = c.id;
SET SESSION group_concat_max_len = DEFAULT;
GRANT SELECT, INSERT ON document_content TO ${appUser};

-- ------------------------------------------------------------ the company's policies
ALTER TABLE company
  -- a check outstanding for longer is stale-dated
  ADD COLUMN stale_days INT NOT NULL DEFAULT 180 CHECK (stale_days BETWEEN 30 AND 730),
  ADD COLUMN version BIGINT NOT NULL DEFAULT 0;

-- ------------------------------------------------------------ what a file for the bank is for
ALTER TABLE bank_file ADD COLUMN purpose VARCHAR(20) NOT NULL DEFAULT 'POSITIVE_PAY' AFTER bank_account_id;
ALTER TABLE bank_file
  ALTER COLUMN purpose DROP DEFAULT,
  -- a file of payments has its way's format, no layout of ours
  MODIFY layout_id BIGINT,
  ADD CONSTRAINT layout_of_positive_pay CHECK ((layout_id IS NOT NULL) = (purpose = 'POSITIVE_PAY')),
  ADD UNIQUE (bank_account_id, purpose, serial),
  DROP INDEX bank_account_id;
-- An item is what was told of a check, or a payment itself.
ALTER TABLE bank_file_item
  ADD COLUMN payment_id BIGINT REFERENCES payment (id),
  ADD UNIQUE (file_id, event_id),
  DROP PRIMARY KEY,
  MODIFY event_id BIGINT,
  ADD PRIMARY KEY (file_id, position),
  ADD UNIQUE (file_id, payment_id),
  ADD CONSTRAINT one_item CHECK ((event_id IS NULL) <> (payment_id IS NULL));
DELIMITER //
-- L12: a payment stands in a file only when its way is no paper. Ways and methods stand, so it is never on paper as well.
CREATE TRIGGER item_of_its_file BEFORE INSERT ON bank_file_item FOR EACH ROW
BEGIN
  IF NOT EXISTS (SELECT 1 FROM bank_file f WHERE f.id = NEW.file_id
      AND (f.purpose = 'POSITIVE_PAY') = (NEW.event_id IS NOT NULL)) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L5: this is no item of such a file';
  END IF;
  IF NEW.payment_id IS NOT NULL AND NOT EXISTS (SELECT 1 FROM payment p JOIN batch b ON b.id = p.batch_id
      WHERE p.id = NEW.payment_id AND b.method <> 'CHECK') THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L12: what is paid on paper stands in no file';
  END IF;
END//
DELIMITER ;

GRANT SELECT, INSERT, UPDATE ON way_to_pay TO ${appUser};
GRANT SELECT, INSERT ON number_series TO ${appUser};
GRANT UPDATE (next_number, micr_pattern, currency_word, validity, version) ON number_series TO ${appUser};
GRANT SELECT ON check_register TO ${appUser};
GRANT SELECT ON series_of_account TO ${appUser};
