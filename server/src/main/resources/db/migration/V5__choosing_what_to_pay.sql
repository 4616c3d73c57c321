-- Choosing what to pay: criteria kept, cash known, drafts edited step by step, offsets, data brought in.

-- Ids of what comes in thousands: claims, their lines, rows brought in.
CREATE SEQUENCE work_seq START WITH 1000000001 INCREMENT BY 100000 NOCACHE;

ALTER TABLE bank_account
  ADD COLUMN floor_minor BIGINT NOT NULL DEFAULT 0,
  ADD COLUMN this_run DATE,
  ADD COLUMN next_run DATE;
-- Receipts and charges of the bank that our ledger does not know yet.
CREATE TABLE cash_movement (
  id BIGINT PRIMARY KEY,
  bank_account_id BIGINT NOT NULL REFERENCES bank_account (id),
  movement_date DATE NOT NULL,
  text VARCHAR(120) NOT NULL,
  amount_minor BIGINT NOT NULL,
  UNIQUE (bank_account_id, movement_date, text, amount_minor)
);

ALTER TABLE remit_to
  ADD COLUMN postal_code VARCHAR(20) NOT NULL DEFAULT '',
  ADD COLUMN bank_details_sealed VARCHAR(400);
ALTER TABLE remit_to ADD INDEX (vendor_id);

ALTER TABLE invoice
  ADD COLUMN usable_from DATE,
  ADD INDEX open_by_day (is_open, kind, currency, due_date, discount_date, vendor_id, open_minor),
  ADD INDEX by_vendor (vendor_id, is_open, kind),
  ADD INDEX by_reference (reference);

CREATE TABLE saved_criteria (
  id BIGINT PRIMARY KEY,
  name VARCHAR(60) NOT NULL,
  person_id BIGINT NOT NULL REFERENCES person (id),
  shared BOOLEAN NOT NULL,
  content LONGTEXT NOT NULL,
  last_batch_id BIGINT REFERENCES batch (id),
  last_run_at DATETIME(6),
  last_outcome VARCHAR(200),
  version BIGINT NOT NULL,
  UNIQUE (person_id, name)
);

ALTER TABLE batch
  ADD COLUMN question LONGTEXT,
  ADD COLUMN claim_order VARCHAR(20) NOT NULL DEFAULT 'PAYEE';
ALTER TABLE claim
  ADD COLUMN vendor_number VARCHAR(12) NOT NULL DEFAULT '',
  ADD COLUMN postal_code VARCHAR(20) NOT NULL DEFAULT '',
  ADD COLUMN apart BOOLEAN NOT NULL DEFAULT FALSE,
  ADD COLUMN stub_note VARCHAR(120) NOT NULL DEFAULT '';
ALTER TABLE claim_line
  ADD COLUMN typed_minor BIGINT,
  ADD COLUMN by_hand BOOLEAN NOT NULL DEFAULT FALSE,
  ADD COLUMN hidden BOOLEAN NOT NULL DEFAULT FALSE,
  ADD COLUMN own_check BOOLEAN NOT NULL DEFAULT FALSE,
  ADD INDEX (invoice_id);
-- What a clerk took out by hand: gathering again leaves it out.
CREATE TABLE batch_out (
  batch_id BIGINT NOT NULL REFERENCES batch (id),
  invoice_id BIGINT NOT NULL REFERENCES invoice (id),
  PRIMARY KEY (batch_id, invoice_id)
);
-- The life of a draft, step by step; an edit that was undone and not redone before the next one is dropped, not deleted.
CREATE TABLE batch_edit (
  id BIGINT PRIMARY KEY,
  batch_id BIGINT NOT NULL REFERENCES batch (id),
  step INT NOT NULL,
  what VARCHAR(200) NOT NULL,
  person_id BIGINT NOT NULL REFERENCES person (id),
  at DATETIME(6) NOT NULL,
  state VARCHAR(10) NOT NULL,
  before_image LONGTEXT NOT NULL,
  after_image LONGTEXT NOT NULL,
  amount_minor BIGINT NOT NULL,
  UNIQUE (batch_id, step)
);

CREATE TABLE credit_offset (
  id BIGINT PRIMARY KEY,
  vendor_id BIGINT NOT NULL REFERENCES vendor (id),
  reference VARCHAR(40) NOT NULL UNIQUE,
  currency VARCHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL,
  ledger_date DATE NOT NULL,
  entry_id BIGINT REFERENCES journal_entry (id),
  made_at DATETIME(6) NOT NULL,
  made_by BIGINT NOT NULL REFERENCES person (id),
  undone_at DATETIME(6),
  undone_by BIGINT REFERENCES person (id),
  version BIGINT NOT NULL,
  CONSTRAINT offset_positive CHECK (amount_minor > 0),
  INDEX (vendor_id)
);
ALTER TABLE settlement
  ADD COLUMN offset_id BIGINT REFERENCES credit_offset (id),
  ADD INDEX (offset_id);

CREATE TABLE import_job (
  id BIGINT PRIMARY KEY,
  kind VARCHAR(20) NOT NULL,
  file_name VARCHAR(120) NOT NULL,
  state VARCHAR(20) NOT NULL,
  person_id BIGINT NOT NULL REFERENCES person (id),
  made_at DATETIME(6) NOT NULL,
  business_date DATE NOT NULL,
  headers LONGTEXT,
  mapping LONGTEXT,
  bytes BIGINT NOT NULL,
  rows_read INT NOT NULL,
  good INT NOT NULL,
  refused INT NOT NULL,
  duplicates INT NOT NULL,
  brought_in INT NOT NULL,
  trouble VARCHAR(500),
  alive_at DATETIME(6) NOT NULL,
  version BIGINT NOT NULL
);
CREATE TABLE import_part (
  job_id BIGINT NOT NULL REFERENCES import_job (id),
  position INT NOT NULL,
  content LONGBLOB NOT NULL,
  PRIMARY KEY (job_id, position)
);
CREATE TABLE import_row (
  job_id BIGINT NOT NULL REFERENCES import_job (id),
  line INT NOT NULL,
  outcome VARCHAR(10) NOT NULL,
  column_name VARCHAR(40) NOT NULL,
  reason VARCHAR(300) NOT NULL,
  identity VARCHAR(120) NOT NULL,
  content LONGTEXT NOT NULL,
  PRIMARY KEY (job_id, line),
  INDEX (job_id, outcome, line)
);

GRANT SELECT, INSERT ON work_seq TO ${appUser};
GRANT SELECT, INSERT ON cash_movement TO ${appUser};
GRANT SELECT, INSERT, UPDATE, DELETE ON saved_criteria TO ${appUser};
GRANT SELECT, INSERT, DELETE ON batch_out TO ${appUser};
GRANT SELECT, INSERT, UPDATE (state) ON batch_edit TO ${appUser};
GRANT SELECT, INSERT, UPDATE (undone_at, undone_by, version) ON credit_offset TO ${appUser};
GRANT SELECT, INSERT, UPDATE ON import_job TO ${appUser};
GRANT SELECT, INSERT, DELETE ON import_part TO ${appUser};
GRANT SELECT, INSERT, UPDATE (outcome, column_name, reason), DELETE ON import_row TO ${appUser};
