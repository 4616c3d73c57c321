-- What the controller chose for payments that were undone in a later year: the year stays as it was reported, or falls.
CREATE TABLE year_choice (
  payment_id BIGINT NOT NULL REFERENCES payment (id),
  step INT NOT NULL,
  falls BOOLEAN NOT NULL,
  reason VARCHAR(300) NOT NULL CHECK (reason <> ''),
  chosen_at DATETIME(6) NOT NULL,
  chosen_by BIGINT NOT NULL REFERENCES person (id),
  PRIMARY KEY (payment_id, step)
);
DELIMITER //
CREATE TRIGGER year_is_chosen_of_what_was_undone BEFORE INSERT ON year_choice FOR EACH ROW
BEGIN
  IF NOT EXISTS (SELECT 1 FROM payment p WHERE p.id = NEW.payment_id AND p.undone_entry_id IS NOT NULL) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L4: a year is chosen for what was undone';
  END IF;
END//
DELIMITER ;
GRANT SELECT, INSERT ON year_choice TO ${appUser};

-- Payments in cash by the year they are reported in. What was undone in a later year (undone_in) and falls after all counts
-- as undone in its own, and so does what another payment replaces, which is reported in that year itself.
CREATE VIEW reported_payment AS
  SELECT p.id, p.vendor_id, p.currency, p.amount_minor, COALESCE(p.reported_year, YEAR(p.check_date)) AS paid_in,
    YEAR(e.ledger_date) AS undone_in, e.ledger_date AS undone_on,
    EXISTS (SELECT 1 FROM payment r WHERE r.replacing_id = p.id AND r.posted_entry_id IS NOT NULL) AS replaced,
    COALESCE((SELECT c.falls FROM year_choice c WHERE c.payment_id = p.id ORDER BY c.step DESC LIMIT 1), FALSE) AS falls
  FROM payment p JOIN batch b ON b.id = p.batch_id AND b.method <> 'CARD'
  LEFT JOIN journal_entry e ON e.id = p.undone_entry_id
  WHERE p.posted_entry_id IS NOT NULL;
GRANT SELECT ON reported_payment TO ${appUser};

-- ------------------------------------------------------------ entries handed to the company's general ledger
CREATE TABLE ledger_file (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  up_to DATE NOT NULL,
  state VARCHAR(10) NOT NULL DEFAULT 'MADE' CHECK (state IN ('MADE', 'TAKEN', 'TAKEN_BACK')),
  made_at DATETIME(6) NOT NULL,
  made_by BIGINT NOT NULL REFERENCES person (id),
  answered_at DATETIME(6),
  answered_by BIGINT REFERENCES person (id),
  why VARCHAR(300) NOT NULL DEFAULT '',
  CONSTRAINT answered_by_somebody CHECK ((state = 'MADE') = (answered_by IS NULL))
);
CREATE TABLE ledger_file_entry (
  file_id BIGINT NOT NULL REFERENCES ledger_file (id),
  entry_id BIGINT NOT NULL REFERENCES journal_entry (id),
  PRIMARY KEY (file_id, entry_id),
  INDEX (entry_id)
);
-- Entries that no file holds, or only files that were taken back. A file takes an entry from here, so that it is handed over
-- once; nothing else changes it.
CREATE TABLE waiting_entry (
  entry_id BIGINT PRIMARY KEY REFERENCES journal_entry (id)
);
INSERT INTO waiting_entry SELECT id FROM journal_entry;
DELIMITER //
CREATE TRIGGER entry_waits AFTER INSERT ON journal_entry FOR EACH ROW
  INSERT INTO waiting_entry VALUES (NEW.id)//
CREATE TRIGGER entry_is_handed_over AFTER INSERT ON ledger_file_entry FOR EACH ROW
BEGIN
  DELETE FROM waiting_entry WHERE entry_id = NEW.entry_id;
  IF ROW_COUNT() = 0 THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L1: the entry was handed over already';
  END IF;
END//
CREATE TRIGGER ledger_file_goes_on BEFORE UPDATE ON ledger_file FOR EACH ROW
BEGIN
  IF OLD.state <> 'MADE' OR NEW.up_to <> OLD.up_to OR NEW.made_by <> OLD.made_by THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L1: what was said of a file of the ledger stands';
  END IF;
END//
CREATE TRIGGER entries_wait_again AFTER UPDATE ON ledger_file FOR EACH ROW
BEGIN
  IF NEW.state = 'TAKEN_BACK' AND OLD.state <> 'TAKEN_BACK' THEN
    INSERT INTO waiting_entry SELECT entry_id FROM ledger_file_entry WHERE file_id = NEW.id;
  END IF;
END//
DELIMITER ;
GRANT SELECT, INSERT, UPDATE (state, answered_at, answered_by, why) ON ledger_file TO ${appUser};
GRANT SELECT, INSERT ON ledger_file_entry TO ${appUser};
GRANT SELECT ON waiting_entry TO ${appUser};

-- ------------------------------------------------------------ a month that is being closed: clerks begin nothing new in it
ALTER TABLE period ADD COLUMN closing BOOLEAN NOT NULL DEFAULT FALSE;

-- ------------------------------------------------------------ payees asked about checks they do not present
CREATE TABLE contact (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  payment_id BIGINT NOT NULL REFERENCES payment (id),
  how VARCHAR(10) NOT NULL CHECK (how IN ('LETTER', 'MAIL', 'CALL', 'NOTE')),
  contacted_on DATE NOT NULL,
  note VARCHAR(300) NOT NULL,
  made_at DATETIME(6) NOT NULL,
  made_by BIGINT NOT NULL REFERENCES person (id),
  INDEX (payment_id)
);
-- What is written to them; the newest is used.
CREATE TABLE contact_letter (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  subject VARCHAR(120) NOT NULL,
  text VARCHAR(3000) NOT NULL,
  made_at DATETIME(6) NOT NULL,
  made_by BIGINT NOT NULL REFERENCES person (id)
);
GRANT SELECT, INSERT ON contact TO ${appUser};
GRANT SELECT, INSERT ON contact_letter TO ${appUser};

-- ------------------------------------------------------------ checks whose money is handed over as unclaimed property
-- A choice without an invoice sends all of a payment to another account; what it settled stays settled.
ALTER TABLE undoing_choice MODIFY invoice_id BIGINT;
-- After how many years, by how the postal code of the payee's address begins; empty for all others.
CREATE TABLE dormancy (
  prefix VARCHAR(10) PRIMARY KEY,
  state VARCHAR(60) NOT NULL,
  years INT NOT NULL CHECK (years BETWEEN 1 AND 30)
);
GRANT SELECT, INSERT, DELETE ON dormancy TO ${appUser};
