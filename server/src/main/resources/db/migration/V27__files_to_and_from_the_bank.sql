-- How files travel to a bank and from it; without a channel people carry them.
CREATE TABLE bank_channel (
  bank_account_id BIGINT PRIMARY KEY REFERENCES bank_account (id),
  kind VARCHAR(20) NOT NULL CHECK (kind IN ('FOLDER', 'SFTP', 'PRACTICE')),
  host VARCHAR(200) NOT NULL,
  port INT NOT NULL,
  user_name VARCHAR(100) NOT NULL,
  -- a password, or a private key as OpenSSH writes it
  secret_sealed MEDIUMTEXT,
  -- the host's key, pinned: SHA256:…
  host_key VARCHAR(60) NOT NULL,
  -- where files are laid, and where the bank lays its own
  folder_out VARCHAR(200) NOT NULL,
  folder_in VARCHAR(200) NOT NULL,
  -- the layout in which the bank is told which checks are paid or returned; by its name, the newest of its versions
  decisions VARCHAR(80) NOT NULL,
  -- what was decided before was told by people
  decisions_since DATETIME(6),
  in_use BOOLEAN NOT NULL,
  looked_at DATETIME(6),
  trouble VARCHAR(300) NOT NULL,
  version BIGINT NOT NULL,
  CONSTRAINT decisions_since_when CHECK ((decisions = '') = (decisions_since IS NULL)),
  CONSTRAINT host_is_pinned CHECK (kind <> 'SFTP' OR NOT in_use OR (host_key <> '' AND secret_sealed IS NOT NULL))
);
-- What a file of the bank is, by its name: the first that fits.
CREATE TABLE bank_channel_rule (
  bank_account_id BIGINT NOT NULL REFERENCES bank_channel (bank_account_id),
  position INT NOT NULL,
  pattern VARCHAR(80) NOT NULL,
  -- by its name, the newest of its versions; null for a statement by the standard
  layout VARCHAR(80),
  PRIMARY KEY (bank_account_id, position)
);
-- A file on its way. It is laid under a name of its own first and gets its name in one step; what is not known of that step
-- a person says.
CREATE TABLE bank_sending (
  file_id BIGINT PRIMARY KEY REFERENCES bank_file (id),
  bank_account_id BIGINT NOT NULL REFERENCES bank_account (id),
  state VARCHAR(20) NOT NULL CHECK (state IN ('WAITING', 'SENT', 'STUCK', 'UNKNOWN')),
  tries INT NOT NULL,
  next_try_at DATETIME(6) NOT NULL,
  -- the last step was begun, and nobody knows yet how it ended
  naming_at DATETIME(6),
  taken_until DATETIME(6),
  lease_token VARCHAR(36),
  trouble VARCHAR(300) NOT NULL,
  asked_at DATETIME(6) NOT NULL,
  asked_by BIGINT NOT NULL REFERENCES person (id),
  sent_at DATETIME(6),
  CONSTRAINT sent_has_a_time CHECK ((state = 'SENT') = (sent_at IS NOT NULL)),
  INDEX (state, next_try_at)
);
-- What the bank laid for us, as it came; it waits until somebody reads it or says why not.
CREATE TABLE bank_incoming (
  id BIGINT PRIMARY KEY,
  bank_account_id BIGINT NOT NULL REFERENCES bank_account (id),
  file_name VARCHAR(120) NOT NULL,
  -- packed (gzip)
  content LONGBLOB NOT NULL,
  content_hash VARCHAR(64) NOT NULL,
  bytes BIGINT NOT NULL,
  -- when the bank wrote it, by its own clock
  written_at DATETIME(6) NOT NULL,
  fetched_at DATETIME(6) NOT NULL,
  state VARCHAR(20) NOT NULL CHECK (state IN ('WAITING', 'READ', 'SET_ASIDE')),
  -- why it could not be read, what it said, or why it is not read
  said VARCHAR(600) NOT NULL,
  -- whether it is read only for a reason, because it does not follow
  gap BOOLEAN NOT NULL,
  done_at DATETIME(6),
  done_by BIGINT REFERENCES person (id),
  version BIGINT NOT NULL,
  UNIQUE (bank_account_id, file_name, content_hash),
  INDEX (bank_account_id, state),
  INDEX (state),
  CONSTRAINT done_has_a_time CHECK ((state = 'WAITING') = (done_at IS NULL))
);

-- Which file told the bank of a decision; one that is said anew is told anew.
ALTER TABLE bank_decision ADD COLUMN file_id BIGINT REFERENCES bank_file (id);
ALTER TABLE bank_file
  DROP CONSTRAINT layout_of_positive_pay,
  ADD CONSTRAINT layout_of_its_purpose CHECK ((layout_id IS NOT NULL) = (purpose IN ('POSITIVE_PAY', 'DECISIONS')));

-- The demo's day goes on when a day passes at the bank to practise on.
CREATE TABLE practice_day (
  only_one TINYINT PRIMARY KEY DEFAULT 1 CHECK (only_one = 1),
  day DATE NOT NULL
);

GRANT SELECT, INSERT, UPDATE ON bank_channel TO ${appUser};
GRANT SELECT, INSERT, DELETE ON bank_channel_rule TO ${appUser};
GRANT SELECT, INSERT, UPDATE ON bank_sending TO ${appUser};
GRANT SELECT, INSERT ON bank_incoming TO ${appUser};
GRANT UPDATE (state, said, gap, done_at, done_by, version) ON bank_incoming TO ${appUser};
GRANT SELECT, INSERT, UPDATE, DELETE ON practice_day TO ${appUser};

-- A file is kept in parts, so that one of any length is written and read without standing in memory.
CREATE TABLE bank_file_part (
  file_id BIGINT NOT NULL REFERENCES bank_file (id),
  position INT NOT NULL,
  content LONGBLOB NOT NULL,
  PRIMARY KEY (file_id, position)
);
INSERT INTO bank_file_part SELECT id, 1, content FROM bank_file;
ALTER TABLE bank_file
  ADD COLUMN bytes BIGINT NOT NULL DEFAULT 0,
  -- the company's day on which it was made, which its records may say
  ADD COLUMN made_on DATE NOT NULL DEFAULT '1970-01-01';
UPDATE bank_file SET bytes = LENGTH(content), made_on = DATE(made_at);
ALTER TABLE bank_file ALTER COLUMN bytes DROP DEFAULT, ALTER COLUMN made_on DROP DEFAULT;
DROP TRIGGER bank_file_stands;
ALTER TABLE bank_file DROP COLUMN content;
DELIMITER //
-- What was told to the bank stays what it was; only the answer may change.
CREATE TRIGGER bank_file_stands BEFORE UPDATE ON bank_file FOR EACH ROW
BEGIN
  IF NEW.content_hash <> OLD.content_hash OR NEW.bytes <> OLD.bytes OR NEW.serial <> OLD.serial
      OR NEW.made_on <> OLD.made_on THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L5: a file never changes';
  END IF;
END//
-- Its parts are as long as it says, each but the last a mebibyte, and so nothing is ever put behind it.
CREATE TRIGGER part_of_its_file BEFORE INSERT ON bank_file_part FOR EACH ROW
BEGIN
  IF NOT EXISTS (SELECT 1 FROM bank_file f WHERE f.id = NEW.file_id
      AND LENGTH(NEW.content) = LEAST(1048576, f.bytes - (NEW.position - 1) * 1048576)) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L5: a file never changes';
  END IF;
END//
DELIMITER ;
GRANT SELECT, INSERT ON bank_file_part TO ${appUser};

-- A bank takes files in another layout from a day on.
ALTER TABLE bank_account
  ADD COLUMN next_layout_id BIGINT REFERENCES bank_file_layout (id),
  ADD COLUMN next_layout_from DATE,
  ADD CONSTRAINT next_layout_has_its_day CHECK ((next_layout_id IS NULL) = (next_layout_from IS NULL)
    AND (next_layout_id IS NULL OR layout_id IS NOT NULL));
