-- What a company sets up for itself: its days, its ledger accounts and what they are for, its bank accounts, its vendors.

-- ------------------------------------------------------------ the company's days
ALTER TABLE company
  -- the zone of its business day; none: as the machine is configured
  ADD COLUMN zone VARCHAR(60),
  -- the month its year of account begins with
  ADD COLUMN first_month INT NOT NULL DEFAULT 1 CHECK (first_month BETWEEN 1 AND 12);

-- ------------------------------------------------------------ ledger accounts, and what they are for
ALTER TABLE ledger_account
  -- nothing is written to it that is dated so or later
  ADD COLUMN closed_from DATE,
  ADD COLUMN version BIGINT NOT NULL DEFAULT 0;
-- Which account takes what; in one currency where the role is one of a currency, '' otherwise.
CREATE TABLE account_role (
  role VARCHAR(30) NOT NULL,
  currency VARCHAR(3) NOT NULL,
  account_id BIGINT NOT NULL REFERENCES ledger_account (id),
  PRIMARY KEY (role, currency)
);
-- until today the newest document of a currency said it
INSERT INTO account_role
  SELECT 'PAYABLES', i.currency, i.payables_account_id FROM invoice i
  JOIN (SELECT currency, MAX(id) AS newest FROM invoice GROUP BY currency) n ON n.newest = i.id;
-- and every bank account its own; they are one
INSERT INTO account_role
  SELECT 'DISCOUNTS_TAKEN', '', discount_account_id FROM bank_account ORDER BY position LIMIT 1;
ALTER TABLE bank_account DROP FOREIGN KEY bank_account_ibfk_2;
ALTER TABLE bank_account DROP COLUMN discount_account_id;
GRANT UPDATE (name, closed_from, version) ON ledger_account TO ${appUser};
GRANT SELECT, INSERT, UPDATE ON account_role TO ${appUser};

DROP TRIGGER journal_entry_lawful;
DELIMITER //
CREATE TRIGGER journal_entry_lawful BEFORE INSERT ON journal_entry FOR EACH ROW
BEGIN
  DECLARE is_locked BOOLEAN;
  DECLARE currencies INT;
  DECLARE off INT;
  DECLARE closed INT;
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
  -- shared, as its lines share it already: whoever closes an account waits, and an entry after that sees it closed
  SELECT COUNT(*) INTO closed FROM journal_line l JOIN ledger_account a ON a.id = l.account_id
    WHERE l.entry_id = NEW.id AND a.closed_from <= NEW.ledger_date LOCK IN SHARE MODE;
  IF closed > 0 THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L8: an account is closed from that day on';
  END IF;
END//
DELIMITER ;

-- ------------------------------------------------------------ bank accounts
ALTER TABLE bank_account
  -- no payment below it is made where nothing else is asked for
  ADD COLUMN smallest_minor BIGINT NOT NULL DEFAULT 0 CHECK (smallest_minor >= 0),
  -- nothing is paid from it any more
  ADD COLUMN closed_on DATE;
-- The days, besides weekends, on which the bank of an account does not work.
CREATE TABLE bank_holiday (
  bank_account_id BIGINT NOT NULL REFERENCES bank_account (id),
  day DATE NOT NULL,
  name VARCHAR(80) NOT NULL,
  PRIMARY KEY (bank_account_id, day)
);
-- The end of a stock; without one the series goes on.
ALTER TABLE number_series
  ADD COLUMN last_number BIGINT,
  ADD CONSTRAINT numbers_end CHECK (last_number IS NULL OR (last_number >= first_number AND next_number <= last_number + 1));
-- A next number that is passed on by hand: proposed by one person, done by a second.
CREATE TABLE series_correction (
  id BIGINT PRIMARY KEY,
  series_id BIGINT NOT NULL REFERENCES number_series (id),
  from_number BIGINT NOT NULL,
  to_number BIGINT NOT NULL,
  reason VARCHAR(300) NOT NULL,
  proposed_by BIGINT NOT NULL REFERENCES person (id),
  proposed_at DATETIME(6) NOT NULL,
  state VARCHAR(20) NOT NULL,
  decided_by BIGINT REFERENCES person (id),
  decided_at DATETIME(6),
  waiting_series_id BIGINT AS (CASE WHEN state = 'PROPOSED' THEN series_id END) PERSISTENT UNIQUE,
  CONSTRAINT goes_on CHECK (to_number > from_number),
  CONSTRAINT by_two CHECK (state <> 'CONFIRMED' OR (decided_by IS NOT NULL AND decided_by <> proposed_by))
);
DELIMITER //
CREATE TRIGGER series_correction_begins BEFORE INSERT ON series_correction FOR EACH ROW
BEGIN
  IF NEW.state <> 'PROPOSED' THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'a correction of numbers begins as a proposal';
  END IF;
END//
CREATE TRIGGER series_correction_stands BEFORE UPDATE ON series_correction FOR EACH ROW
BEGIN
  IF OLD.state <> 'PROPOSED' OR NEW.series_id <> OLD.series_id OR NEW.from_number <> OLD.from_number
    OR NEW.to_number <> OLD.to_number OR NEW.reason <> OLD.reason OR NEW.proposed_by <> OLD.proposed_by THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'a correction of numbers is decided once, as it was proposed';
  END IF;
END//
-- Shared with whoever closes the account: either the batch is there before, or it is not made.
CREATE TRIGGER batch_of_an_open_account BEFORE INSERT ON batch FOR EACH ROW
BEGIN
  DECLARE closed DATE;
  SELECT closed_on INTO closed FROM bank_account WHERE id = NEW.bank_account_id LOCK IN SHARE MODE;
  IF closed IS NOT NULL THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L6: the bank account is closed';
  END IF;
END//
-- Shared with whoever ends positive pay: what is told waits for a file that can be made.
CREATE TRIGGER bank_event_is_wanted BEFORE INSERT ON bank_event FOR EACH ROW
BEGIN
  DECLARE told BOOLEAN;
  SELECT positive_pay INTO told FROM bank_account WHERE id = NEW.bank_account_id LOCK IN SHARE MODE;
  IF NOT told THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L5: the bank of this account is told of nothing';
  END IF;
END//
DELIMITER ;
GRANT SELECT, INSERT, DELETE ON bank_holiday TO ${appUser};
GRANT SELECT, INSERT, UPDATE ON series_correction TO ${appUser};
GRANT UPDATE (last_number) ON number_series TO ${appUser};

-- A layout to begin with, for banks that take any fixed one.
INSERT INTO bank_file_layout (id, name, version_number, definition) VALUES (NEXT VALUE FOR row_seq,
  'Plain, 100 characters a check', 1,
  '{"name":"Plain, 100 characters a check","encoding":"ISO-8859-1","lineEnd":"\\r\\n","header":[],"detail":[{"name":"kind","source":"KIND","value":"","width":1,"align":"LEFT","fill":" ","impliedDecimals":false,"upperCase":false,"substitutions":{"ISSUE":"I","VOID":"V"},"cut":false},{"name":"routing number","source":"ROUTING_NUMBER","value":"","width":9,"align":"RIGHT","fill":"0","impliedDecimals":false,"upperCase":false,"substitutions":{},"cut":false},{"name":"account number","source":"ACCOUNT_NUMBER","value":"","width":17,"align":"RIGHT","fill":"0","impliedDecimals":false,"upperCase":false,"substitutions":{},"cut":false},{"name":"check number","source":"NUMBER","value":"","width":10,"align":"RIGHT","fill":"0","impliedDecimals":false,"upperCase":false,"substitutions":{},"cut":false},{"name":"amount","source":"AMOUNT","value":"","width":15,"align":"RIGHT","fill":"0","impliedDecimals":true,"upperCase":false,"substitutions":{},"cut":false},{"name":"date","source":"DATE","value":"yyyyMMdd","width":8,"align":"LEFT","fill":" ","impliedDecimals":false,"upperCase":false,"substitutions":{},"cut":false},{"name":"payee","source":"PAYEE","value":"","width":40,"align":"LEFT","fill":" ","impliedDecimals":false,"upperCase":true,"substitutions":{},"cut":true}],"trailer":[]}');

-- ------------------------------------------------------------ vendors
ALTER TABLE vendor
  -- where remittance advice goes
  ADD COLUMN email VARCHAR(120) NOT NULL DEFAULT '',
  ADD COLUMN tax_number_sealed VARCHAR(400),
  ADD COLUMN tax_number_mask VARCHAR(20) NOT NULL DEFAULT '',
  ADD COLUMN reportable VARCHAR(20) NOT NULL DEFAULT 'NO';

-- ------------------------------------------------------------ what people look for, each from an index
ALTER TABLE invoice
  -- its end is found as its beginning is
  ADD COLUMN reference_backwards VARCHAR(40) AS (REVERSE(reference)) PERSISTENT,
  ADD INDEX reference_from_its_end (reference_backwards),
  ADD INDEX amount_alone (amount_minor);
ALTER TABLE payment ADD INDEX by_amount (amount_minor);
ALTER TABLE check_number ADD INDEX by_number (number);

-- ------------------------------------------------------------ two vendors that are one
ALTER TABLE vendor
  -- the one it became; its documents and payments are that one's
  ADD COLUMN merged_into_id BIGINT REFERENCES vendor (id),
  ADD CONSTRAINT into_another CHECK (merged_into_id <> id);
DROP TRIGGER remit_to_by_two;
DELIMITER //
CREATE TRIGGER vendor_stays_merged BEFORE UPDATE ON vendor FOR EACH ROW
BEGIN
  IF OLD.merged_into_id IS NOT NULL AND NOT NEW.merged_into_id <=> OLD.merged_into_id THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'a vendor that became another stays it';
  END IF;
END//
-- A remit-to becomes only what two people agreed on last, sealed bank details included. What comes along with a vendor that
-- is merged into another waits for a second person, like a new one.
CREATE TRIGGER remit_to_by_two BEFORE UPDATE ON remit_to FOR EACH ROW
BEGIN
  DECLARE became BIGINT;
  SELECT merged_into_id INTO became FROM vendor WHERE id = OLD.vendor_id;
  IF NEW.vendor_id <> OLD.vendor_id THEN
    IF NOT NEW.vendor_id <=> became OR NEW.in_force OR BINARY NEW.payee <> BINARY OLD.payee
      OR BINARY NEW.address <> BINARY OLD.address OR NEW.bank_key <> OLD.bank_key
      OR NOT NEW.bank_details_sealed <=> OLD.bank_details_sealed THEN
      SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L7: an address changes hands only as it is, and waits';
    END IF;
  ELSEIF NOT EXISTS (
      SELECT 1 FROM vendor_change v
      WHERE v.id = (SELECT w.id FROM vendor_change w WHERE w.remit_to_id = NEW.id AND w.state = 'CONFIRMED'
          ORDER BY w.decided_at DESC, w.id DESC LIMIT 1)
        AND v.decided_by <> v.proposed_by
        AND BINARY v.after_payee = BINARY NEW.payee AND BINARY v.after_address = BINARY NEW.address
        AND v.after_bank_key = NEW.bank_key AND v.after_bank_sealed <=> NEW.bank_details_sealed) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L7: an address or bank details change by two people';
  END IF;
END//
-- Shared with whoever merges it: a document is there before and comes along, or it is not taken.
CREATE TRIGGER invoice_of_a_vendor_that_stays BEFORE INSERT ON invoice FOR EACH ROW
BEGIN
  DECLARE became BIGINT;
  SELECT merged_into_id INTO became FROM vendor WHERE id = NEW.vendor_id LOCK IN SHARE MODE;
  IF became IS NOT NULL THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'this vendor became another';
  END IF;
END//
-- Documents and payments become the kept vendor's in one step; the application changes none of them otherwise.
CREATE PROCEDURE merge_vendor(IN gone BIGINT, IN kept BIGINT)
BEGIN
  DECLARE documents BIGINT;
  -- whoever reserves one of them meanwhile is waited for, and then seen
  SELECT COUNT(*) INTO documents FROM invoice WHERE vendor_id = gone FOR UPDATE;
  IF NOT EXISTS (SELECT 1 FROM vendor g JOIN vendor k ON k.id = kept AND k.currency = g.currency
      WHERE g.id = gone AND g.merged_into_id IS NULL AND k.merged_into_id IS NULL AND g.id <> k.id)
    OR EXISTS (SELECT 1 FROM reservation r JOIN invoice i ON i.id = r.invoice_id WHERE i.vendor_id = gone
      LOCK IN SHARE MODE) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L9: these vendors cannot become one now';
  END IF;
  UPDATE vendor SET merged_into_id = kept, version = version + 1 WHERE id = gone;
  -- what is open goes to the same address of the other where it has that
  UPDATE invoice i JOIN remit_to r ON r.id = i.remit_to_id
    JOIN (SELECT payee, address_key, bank_key, MIN(id) AS id FROM remit_to WHERE vendor_id = kept AND in_force
      GROUP BY payee, address_key, bank_key) k
      ON k.payee = r.payee AND k.address_key = r.address_key AND k.bank_key = r.bank_key
    SET i.remit_to_id = k.id WHERE i.vendor_id = gone AND i.is_open = 1;
  UPDATE remit_to r SET r.vendor_id = kept, r.in_force = FALSE
    WHERE r.vendor_id = gone AND EXISTS (SELECT 1 FROM invoice i WHERE i.remit_to_id = r.id AND i.is_open = 1);
  UPDATE invoice SET vendor_id = kept WHERE vendor_id = gone;
  UPDATE payment SET vendor_id = kept WHERE vendor_id = gone;
  UPDATE credit_offset SET vendor_id = kept WHERE vendor_id = gone;
  UPDATE vendor_identifier SET vendor_id = kept WHERE vendor_id = gone;
END//
DELIMITER ;
GRANT EXECUTE ON PROCEDURE merge_vendor TO ${appUser};
