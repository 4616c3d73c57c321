-- Payments that a file for the bank carries: by which agreement, under which reference, in which file (L12).

-- ------------------------------------------------------------ bank details
ALTER TABLE remit_to
  -- which kind of account it is; empty where there is none
  ADD COLUMN bank_kind VARCHAR(10) NOT NULL DEFAULT '' CHECK (bank_kind IN ('', 'IBAN', 'ROUTED')),
  -- the keyed hash of the account alone, however it is reached, by which it is found with other vendors
  ADD COLUMN account_key VARCHAR(64) NOT NULL DEFAULT '',
  ADD INDEX (account_key);
ALTER TABLE vendor_change
  ADD COLUMN after_bank_kind VARCHAR(10) NOT NULL DEFAULT '',
  ADD COLUMN after_account_key VARCHAR(64) NOT NULL DEFAULT '';
-- what changes by two people only is what they agreed on; the columns are filled from what stands there
DROP TRIGGER remit_to_by_two;
UPDATE remit_to SET account_key = bank_key,
  bank_kind = CASE WHEN bank_key = '' THEN '' WHEN bank_mask LIKE 'IBAN %' THEN 'IBAN' ELSE 'ROUTED' END;
DROP TRIGGER vendor_change_stands;
UPDATE vendor_change SET after_account_key = after_bank_key,
  after_bank_kind = CASE WHEN after_bank_key = '' THEN '' WHEN after_bank_mask LIKE 'IBAN %' THEN 'IBAN' ELSE 'ROUTED' END;
DELIMITER //
CREATE TRIGGER vendor_change_stands BEFORE UPDATE ON vendor_change FOR EACH ROW
BEGIN
  IF OLD.state <> 'PROPOSED' THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L7: a change is decided once';
  END IF;
END//
-- A remit-to becomes only what two people agreed on last, sealed bank details and all that is known of them included. What
-- comes along with a vendor that is merged into another waits for a second person, like a new one.
CREATE TRIGGER remit_to_by_two BEFORE UPDATE ON remit_to FOR EACH ROW
BEGIN
  DECLARE became BIGINT;
  SELECT merged_into_id INTO became FROM vendor WHERE id = OLD.vendor_id;
  IF NEW.vendor_id <> OLD.vendor_id THEN
    IF NOT NEW.vendor_id <=> became OR NEW.in_force OR BINARY NEW.payee <> BINARY OLD.payee
      OR BINARY NEW.address <> BINARY OLD.address OR NEW.bank_key <> OLD.bank_key
      OR NOT NEW.bank_details_sealed <=> OLD.bank_details_sealed OR NEW.bank_kind <> OLD.bank_kind
      OR NEW.account_key <> OLD.account_key THEN
      SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L7: an address changes hands only as it is, and waits';
    END IF;
  ELSEIF NOT EXISTS (
      SELECT 1 FROM vendor_change v
      WHERE v.id = (SELECT w.id FROM vendor_change w WHERE w.remit_to_id = NEW.id AND w.state = 'CONFIRMED'
          ORDER BY w.decided_at DESC, w.id DESC LIMIT 1)
        AND v.decided_by <> v.proposed_by
        AND BINARY v.after_payee = BINARY NEW.payee AND BINARY v.after_address = BINARY NEW.address
        AND v.after_bank_key = NEW.bank_key AND v.after_bank_sealed <=> NEW.bank_details_sealed
        AND v.after_bank_kind = NEW.bank_kind AND v.after_account_key = NEW.account_key) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L7: an address or bank details change by two people';
  END IF;
END//
DELIMITER ;
GRANT INSERT (bank_kind, account_key) ON remit_to TO ${appUser};
GRANT UPDATE (bank_kind, account_key) ON remit_to TO ${appUser};

-- ------------------------------------------------------------ what a bank agreed on for a way of files
CREATE TABLE electronic_way (
  way_id BIGINT PRIMARY KEY REFERENCES way_to_pay (id),
  -- the ids, names and choices of its format
  sender LONGTEXT NOT NULL CHECK (JSON_VALID(sender)),
  -- the company's account as files name it, sealed, where that is not its number; null where it is
  own_sealed VARCHAR(400),
  -- the largest payment, file and day the bank takes; without, any
  payment_limit_minor BIGINT CHECK (payment_limit_minor > 0),
  file_limit_minor BIGINT CHECK (file_limit_minor > 0),
  day_limit_minor BIGINT CHECK (day_limit_minor > 0),
  -- what is over the limit of a file goes into several; it is refused otherwise
  splits BOOLEAN NOT NULL,
  -- until when, by the company's clock, a file counts as of its day
  cut_off TIME NOT NULL,
  days_ahead INT NOT NULL CHECK (days_ahead BETWEEN 0 AND 10),
  reference_prefix VARCHAR(8) NOT NULL,
  next_reference BIGINT NOT NULL CHECK (next_reference > 0),
  version BIGINT NOT NULL
);
-- ------------------------------------------------------------ payments in files
-- By which entries of ACH are traced, whatever way of the account they go.
ALTER TABLE bank_account ADD COLUMN next_trace BIGINT NOT NULL DEFAULT 1;
ALTER TABLE bank_file
  -- of a file that pays: by which way, and on which day payees have the money
  ADD COLUMN way_id BIGINT REFERENCES electronic_way (way_id),
  ADD COLUMN pays_on DATE,
  -- tells its files of one day apart
  ADD COLUMN day_number INT,
  ADD CONSTRAINT way_of_what_pays CHECK ((way_id IS NOT NULL) = (purpose = 'ELECTRONIC')
    AND (pays_on IS NOT NULL) = (purpose = 'ELECTRONIC') AND (day_number IS NOT NULL) = (purpose = 'ELECTRONIC')),
  ADD UNIQUE one_of_its_day (way_id, made_on, day_number);
ALTER TABLE bank_file_item
  -- what the file says of a payment
  ADD COLUMN amount_minor BIGINT,
  ADD CONSTRAINT amount_of_a_payment CHECK ((amount_minor IS NOT NULL) = (payment_id IS NOT NULL));
CREATE TABLE electronic_item (
  payment_id BIGINT PRIMARY KEY REFERENCES payment (id),
  way_id BIGINT NOT NULL REFERENCES electronic_way (way_id),
  -- the payment's own number in the series of its way
  reference BIGINT NOT NULL,
  called VARCHAR(20) NOT NULL,
  -- by which a return finds it; the numbers begin anew after some millions
  sequence INT NOT NULL,
  -- L12: the one file not refused that carries it
  file_id BIGINT REFERENCES bank_file (id),
  CONSTRAINT l12_reference_once UNIQUE (way_id, reference),
  UNIQUE (way_id, called),
  INDEX (way_id, sequence),
  INDEX (called),
  INDEX (file_id)
);
-- Each time somebody took a file to hand it over himself.
CREATE TABLE bank_file_handing (
  id BIGINT PRIMARY KEY,
  file_id BIGINT NOT NULL REFERENCES bank_file (id),
  at DATETIME(6) NOT NULL,
  person_id BIGINT NOT NULL REFERENCES person (id),
  INDEX (file_id)
);

-- What a payment carries, whatever carries it: the number of its check, its reference, or what was typed.
CREATE VIEW payment_carried AS
  SELECT p.id AS payment_id, p.claim_id, p.batch_id, b.method, b.purpose,
    COALESCE(CONCAT(s.prefix, n.number), i.called, o.number, '') AS number, n.id AS check_id, n.series_id
  FROM payment p JOIN batch b ON b.id = p.batch_id LEFT JOIN check_number n ON n.live_payment_id = p.id
  LEFT JOIN number_series s ON s.id = n.series_id LEFT JOIN electronic_item i ON i.payment_id = p.id
  LEFT JOIN outside_number o ON o.payment_id = p.id;
GRANT SELECT ON payment_carried TO ${appUser};

DELIMITER //
CREATE TRIGGER electronic_way_of_files BEFORE INSERT ON electronic_way FOR EACH ROW
BEGIN
  IF NOT EXISTS (SELECT 1 FROM way_to_pay w WHERE w.id = NEW.way_id AND NOT w.recorded_only
      AND w.method IN ('ACH', 'CREDIT_TRANSFER')) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L12: this way has no files';
  END IF;
END//
CREATE TRIGGER electronic_way_goes_on BEFORE UPDATE ON electronic_way FOR EACH ROW
BEGIN
  IF NEW.way_id <> OLD.way_id OR NEW.next_reference < OLD.next_reference THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L12: references of a way go on only';
  END IF;
END//
CREATE TRIGGER series_of_paper BEFORE INSERT ON number_series FOR EACH ROW
BEGIN
  IF NOT EXISTS (SELECT 1 FROM way_to_pay w WHERE w.id = NEW.way_id AND w.method = 'CHECK') THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L12: only checks have numbers of a series';
  END IF;
END//
CREATE TRIGGER electronic_item_of_its_way BEFORE INSERT ON electronic_item FOR EACH ROW
BEGIN
  IF NEW.file_id IS NOT NULL OR NOT EXISTS (SELECT 1 FROM payment p JOIN batch b ON b.id = p.batch_id
      WHERE p.id = NEW.payment_id AND b.way_id = NEW.way_id AND b.purpose <> 'OUTSIDE') THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L12: the payment goes another way than this reference';
  END IF;
END//
-- It goes into a file that is being made, and out of one that was refused, whole or for this payment.
CREATE TRIGGER electronic_item_stands BEFORE UPDATE ON electronic_item FOR EACH ROW
BEGIN
  IF NEW.payment_id <> OLD.payment_id OR NEW.way_id <> OLD.way_id OR NEW.reference <> OLD.reference
    OR NEW.called <> OLD.called OR NEW.sequence <> OLD.sequence THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L12: a reference never changes';
  END IF;
  IF OLD.file_id IS NULL AND NEW.file_id IS NOT NULL THEN
    IF NOT EXISTS (SELECT 1 FROM bank_file f JOIN payment p ON p.id = NEW.payment_id AND p.state = 'PREPARED'
        WHERE f.id = NEW.file_id AND f.way_id = NEW.way_id AND f.state = 'MADE') THEN
      SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L12: a payment goes into a file that is being made';
    END IF;
    CALL must_be_approved(NEW.payment_id);
  END IF;
  IF OLD.file_id IS NOT NULL AND NOT NEW.file_id <=> OLD.file_id AND (NEW.file_id IS NOT NULL OR NOT EXISTS (
      SELECT 1 FROM bank_file f JOIN bank_file_item x ON x.file_id = f.id AND x.payment_id = NEW.payment_id
      WHERE f.id = OLD.file_id AND (f.state = 'REFUSED' OR x.refused_why IS NOT NULL))) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L12: the payment stands in a file the bank has not refused';
  END IF;
  -- as it is now, not as it was when this transaction began: somebody may post it meanwhile
  IF OLD.file_id IS NOT NULL AND NEW.file_id IS NULL AND EXISTS (
      SELECT 1 FROM payment p WHERE p.id = NEW.payment_id AND p.posted_entry_id IS NOT NULL LOCK IN SHARE MODE) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L12: what is in the ledger is reversed, not taken out of its file';
  END IF;
END//
CREATE TRIGGER payment_item_of_its_file BEFORE INSERT ON bank_file_item FOR EACH ROW FOLLOWS item_of_its_file
BEGIN
  IF NEW.payment_id IS NOT NULL AND NOT EXISTS (
      SELECT 1 FROM electronic_item i WHERE i.payment_id = NEW.payment_id AND i.file_id = NEW.file_id) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L12: the payment is not in this file';
  END IF;
END//
-- What a file carries is posted once the bank took the file, and not taken out while the bank may go by it.
CREATE TRIGGER payment_of_its_file BEFORE UPDATE ON payment FOR EACH ROW
BEGIN
  IF OLD.posted_entry_id IS NULL AND NEW.posted_entry_id IS NOT NULL
    AND EXISTS (SELECT 1 FROM batch b JOIN electronic_way w ON w.way_id = b.way_id WHERE b.id = NEW.batch_id)
    AND (NOT EXISTS (SELECT 1 FROM electronic_item i JOIN bank_file f ON f.id = i.file_id AND f.state = 'ACCEPTED'
      WHERE i.payment_id = NEW.id)
      -- the bank may refuse it singly meanwhile
      OR NOT EXISTS (SELECT 1 FROM electronic_item i WHERE i.payment_id = NEW.id AND i.file_id IS NOT NULL LOCK IN SHARE MODE)) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L12: no bank took this payment yet';
  END IF;
  IF NEW.state = 'TAKEN_OUT' AND OLD.state <> NEW.state
    AND EXISTS (SELECT 1 FROM electronic_item i WHERE i.payment_id = NEW.id AND i.file_id IS NOT NULL) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L12: the payment stands in a file the bank has not refused';
  END IF;
END//
DELIMITER ;
GRANT SELECT, INSERT ON electronic_way TO ${appUser};
GRANT UPDATE (sender, own_sealed, payment_limit_minor, file_limit_minor, day_limit_minor, splits, cut_off, days_ahead, reference_prefix,
  next_reference, version) ON electronic_way TO ${appUser};
GRANT SELECT, INSERT ON electronic_item TO ${appUser};
GRANT UPDATE (file_id) ON electronic_item TO ${appUser};
GRANT SELECT, INSERT ON bank_file_handing TO ${appUser};

-- ------------------------------------------------------------ what a bank says of single payments afterwards
CREATE TABLE bank_notice (
  id BIGINT PRIMARY KEY,
  bank_account_id BIGINT NOT NULL REFERENCES bank_account (id),
  kind VARCHAR(20) NOT NULL CHECK (kind IN ('RETURNED', 'CHANGED')),
  -- the bank's code, and how it names the payment: its trace number, or its reference
  code VARCHAR(10) NOT NULL,
  names VARCHAR(40) NOT NULL,
  words VARCHAR(300) NOT NULL,
  payment_id BIGINT REFERENCES payment (id),
  amount_minor BIGINT,
  currency VARCHAR(3) NOT NULL,
  -- what is right instead, sealed; of a change only
  right_sealed VARCHAR(400),
  state VARCHAR(20) NOT NULL CHECK (state IN ('WAITING', 'DONE', 'CLOSED')),
  -- what came of it, or why nothing did yet
  said VARCHAR(400) NOT NULL,
  read_on DATE NOT NULL,
  read_at DATETIME(6) NOT NULL,
  read_by BIGINT NOT NULL REFERENCES person (id),
  done_at DATETIME(6),
  done_by BIGINT REFERENCES person (id),
  version BIGINT NOT NULL,
  CONSTRAINT told_once UNIQUE (bank_account_id, kind, names, code),
  INDEX (payment_id),
  INDEX (state),
  CONSTRAINT done_has_its_time CHECK ((state = 'WAITING') = (done_at IS NULL))
);
GRANT SELECT, INSERT ON bank_notice TO ${appUser};
GRANT UPDATE (payment_id, state, said, done_at, done_by, version) ON bank_notice TO ${appUser};
