-- The whole road from an invoice to the bank's file. What a law of the handbook says is a constraint or a trigger here
-- wherever the database can express it; the application's account cannot change what must not change (see V3).

CREATE SEQUENCE row_seq START WITH 1001 INCREMENT BY 100 NOCACHE;
CREATE SEQUENCE invoice_seq START WITH 7001 INCREMENT BY 50 NOCACHE;
CREATE SEQUENCE batch_seq START WITH 101 INCREMENT BY 1 NOCACHE;

CREATE TABLE person (
  id BIGINT PRIMARY KEY,
  sign_in VARCHAR(40) NOT NULL UNIQUE,
  name VARCHAR(80) NOT NULL,
  password_hash VARCHAR(200) NOT NULL,
  enabled BOOLEAN NOT NULL,
  demo BOOLEAN NOT NULL,
  version BIGINT NOT NULL
);
CREATE TABLE person_role (
  person_id BIGINT NOT NULL REFERENCES person (id),
  role VARCHAR(20) NOT NULL,
  PRIMARY KEY (person_id, role)
);
CREATE TABLE sign_in_attempt (
  id BIGINT PRIMARY KEY,
  sign_in VARCHAR(40) NOT NULL,
  origin VARCHAR(60) NOT NULL,
  at DATETIME(6) NOT NULL,
  good BOOLEAN NOT NULL,
  INDEX (sign_in, at)
);

CREATE TABLE audit_head (
  id BIGINT PRIMARY KEY,
  sequence BIGINT NOT NULL,
  hash VARCHAR(64) NOT NULL
);
INSERT INTO audit_head VALUES (1, 0, REPEAT('0', 64));
CREATE TABLE audit_record (
  sequence BIGINT PRIMARY KEY,
  at DATETIME(6) NOT NULL,
  person_id BIGINT NOT NULL,
  origin VARCHAR(60) NOT NULL,
  deed VARCHAR(60) NOT NULL,
  subject VARCHAR(80) NOT NULL,
  detail LONGTEXT NOT NULL,
  previous_hash VARCHAR(64) NOT NULL UNIQUE,
  hash VARCHAR(64) NOT NULL UNIQUE,
  INDEX (subject)
);

CREATE TABLE company (
  id BIGINT PRIMARY KEY,
  name VARCHAR(80) NOT NULL,
  address VARCHAR(300) NOT NULL,
  grace_days INT NOT NULL CHECK (grace_days BETWEEN 0 AND 30)
);

CREATE TABLE ledger_account (
  id BIGINT PRIMARY KEY,
  code VARCHAR(12) NOT NULL UNIQUE,
  name VARCHAR(80) NOT NULL,
  kind VARCHAR(20) NOT NULL
);
CREATE TABLE period (
  month VARCHAR(7) PRIMARY KEY,
  locked BOOLEAN NOT NULL,
  version BIGINT NOT NULL
);
CREATE TABLE period_lock (
  id BIGINT PRIMARY KEY,
  month VARCHAR(7) NOT NULL REFERENCES period (month),
  locked_at DATETIME(6) NOT NULL,
  locked_by BIGINT NOT NULL REFERENCES person (id),
  unlocked_at DATETIME(6),
  unlocked_by BIGINT REFERENCES person (id),
  unlock_reason VARCHAR(300),
  last_entry_id BIGINT
);
CREATE TABLE period_total (
  lock_id BIGINT NOT NULL REFERENCES period_lock (id),
  account_id BIGINT NOT NULL REFERENCES ledger_account (id),
  currency VARCHAR(3) NOT NULL,
  debit_minor BIGINT NOT NULL,
  credit_minor BIGINT NOT NULL,
  PRIMARY KEY (lock_id, account_id, currency)
);
CREATE TABLE journal_entry (
  id BIGINT PRIMARY KEY,
  ledger_date DATE NOT NULL,
  month VARCHAR(7) NOT NULL REFERENCES period (month),
  kind VARCHAR(20) NOT NULL,
  text VARCHAR(200) NOT NULL,
  batch_id BIGINT,
  payment_id BIGINT,
  invoice_id BIGINT,
  reverses_id BIGINT UNIQUE REFERENCES journal_entry (id),
  made_at DATETIME(6) NOT NULL,
  made_by BIGINT NOT NULL REFERENCES person (id),
  UNIQUE (payment_id, kind),
  INDEX (month, ledger_date, id),
  INDEX (batch_id)
);
CREATE TABLE journal_line (
  id BIGINT PRIMARY KEY,
  entry_id BIGINT NOT NULL REFERENCES journal_entry (id),
  account_id BIGINT NOT NULL REFERENCES ledger_account (id),
  currency VARCHAR(3) NOT NULL,
  debit_minor BIGINT NOT NULL,
  credit_minor BIGINT NOT NULL,
  CONSTRAINT one_side CHECK ((debit_minor > 0 AND credit_minor = 0) OR (debit_minor = 0 AND credit_minor > 0)),
  INDEX (account_id)
);

CREATE TABLE bank_file_layout (
  id BIGINT PRIMARY KEY,
  name VARCHAR(80) NOT NULL,
  version_number INT NOT NULL,
  definition LONGTEXT NOT NULL,
  UNIQUE (name, version_number)
);
CREATE TABLE bank_account (
  id BIGINT PRIMARY KEY,
  name VARCHAR(60) NOT NULL UNIQUE,
  bank_name VARCHAR(80) NOT NULL,
  currency VARCHAR(3) NOT NULL,
  method VARCHAR(20) NOT NULL,
  stock VARCHAR(20) NOT NULL,
  routing_number VARCHAR(9) NOT NULL,
  account_number_sealed VARCHAR(400) NOT NULL,
  micr_pattern VARCHAR(60) NOT NULL,
  currency_word VARCHAR(20) NOT NULL,
  validity VARCHAR(80) NOT NULL,
  cash_account_id BIGINT NOT NULL REFERENCES ledger_account (id),
  discount_account_id BIGINT NOT NULL REFERENCES ledger_account (id),
  first_number BIGINT NOT NULL,
  next_number BIGINT NOT NULL,
  positive_pay BOOLEAN NOT NULL,
  layout_id BIGINT REFERENCES bank_file_layout (id),
  next_file_serial BIGINT NOT NULL,
  position INT NOT NULL,
  version BIGINT NOT NULL,
  CONSTRAINT numbers_go_up CHECK (next_number >= first_number)
);

CREATE TABLE vendor (
  id BIGINT PRIMARY KEY,
  number VARCHAR(12) NOT NULL UNIQUE,
  name VARCHAR(120) NOT NULL,
  vendor_group VARCHAR(40) NOT NULL,
  priority INT NOT NULL,
  method VARCHAR(20) NOT NULL,
  currency VARCHAR(3) NOT NULL,
  terms_rule VARCHAR(20) NOT NULL,
  terms_days INT NOT NULL,
  terms_cut_off_day INT,
  discount_rate DECIMAL(7, 5) NOT NULL,
  discount_days INT NOT NULL,
  hold_reason VARCHAR(200),
  version BIGINT NOT NULL,
  INDEX (name)
);
CREATE TABLE remit_to (
  id BIGINT PRIMARY KEY,
  vendor_id BIGINT NOT NULL REFERENCES vendor (id),
  payee VARCHAR(120) NOT NULL,
  address VARCHAR(400) NOT NULL
);

CREATE TABLE invoice (
  id BIGINT PRIMARY KEY,
  vendor_id BIGINT NOT NULL REFERENCES vendor (id),
  remit_to_id BIGINT NOT NULL REFERENCES remit_to (id),
  kind VARCHAR(20) NOT NULL,
  reference VARCHAR(40) NOT NULL,
  invoice_date DATE NOT NULL,
  due_date DATE NOT NULL,
  discount_date DATE,
  ledger_date DATE NOT NULL,
  currency VARCHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL,
  discountable_minor BIGINT NOT NULL,
  discount_rate DECIMAL(7, 5) NOT NULL,
  open_minor BIGINT NOT NULL,
  discount_taken_minor BIGINT NOT NULL,
  payables_account_id BIGINT NOT NULL REFERENCES ledger_account (id),
  own_check BOOLEAN NOT NULL,
  hold_reason VARCHAR(200),
  version BIGINT NOT NULL,
  is_open BOOLEAN AS (open_minor > 0) PERSISTENT,
  UNIQUE (vendor_id, kind, reference),
  INDEX open_by_due (is_open, kind, due_date),
  INDEX open_by_discount (is_open, kind, discount_date),
  CONSTRAINT amount_positive CHECK (amount_minor > 0),
  CONSTRAINT discountable_within CHECK (discountable_minor BETWEEN 0 AND amount_minor),
  CONSTRAINT l2_open_within CHECK (open_minor BETWEEN 0 AND amount_minor)
);
CREATE TABLE invoice_line (
  id BIGINT PRIMARY KEY,
  invoice_id BIGINT NOT NULL REFERENCES invoice (id),
  account_id BIGINT NOT NULL REFERENCES ledger_account (id),
  amount_minor BIGINT NOT NULL,
  job VARCHAR(20)
);

CREATE TABLE batch (
  id BIGINT PRIMARY KEY,
  name VARCHAR(80) NOT NULL,
  note VARCHAR(500) NOT NULL,
  bank_account_id BIGINT NOT NULL REFERENCES bank_account (id),
  method VARCHAR(20) NOT NULL,
  check_date DATE NOT NULL,
  ledger_date DATE NOT NULL,
  next_run DATE,
  state VARCHAR(20) NOT NULL,
  approval_round INT NOT NULL,
  prepared_by BIGINT NOT NULL REFERENCES person (id),
  prepared_at DATETIME(6) NOT NULL,
  sent_at DATETIME(6),
  sent_back_reason VARCHAR(500),
  changed_by BIGINT NOT NULL REFERENCES person (id),
  changed_at DATETIME(6) NOT NULL,
  changed_what VARCHAR(200) NOT NULL,
  version BIGINT NOT NULL,
  INDEX (state)
);
-- Everyone who prepared or changed it (L7).
CREATE TABLE batch_hand (
  batch_id BIGINT NOT NULL REFERENCES batch (id),
  person_id BIGINT NOT NULL REFERENCES person (id),
  PRIMARY KEY (batch_id, person_id)
);
CREATE TABLE claim (
  id BIGINT PRIMARY KEY,
  batch_id BIGINT NOT NULL REFERENCES batch (id),
  vendor_id BIGINT NOT NULL REFERENCES vendor (id),
  remit_to_id BIGINT NOT NULL REFERENCES remit_to (id),
  payee VARCHAR(120) NOT NULL,
  address VARCHAR(400) NOT NULL,
  currency VARCHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL,
  digest VARCHAR(64),
  version BIGINT NOT NULL,
  CONSTRAINT claim_positive CHECK (amount_minor > 0),
  INDEX (batch_id, payee)
);
CREATE TABLE claim_line (
  id BIGINT PRIMARY KEY,
  claim_id BIGINT NOT NULL REFERENCES claim (id),
  kind VARCHAR(20) NOT NULL,
  invoice_id BIGINT NOT NULL REFERENCES invoice (id),
  reference VARCHAR(40) NOT NULL,
  invoice_date DATE NOT NULL,
  currency VARCHAR(3) NOT NULL,
  gross_minor BIGINT NOT NULL,
  discount_minor BIGINT NOT NULL,
  credit_minor BIGINT NOT NULL,
  cash_minor BIGINT NOT NULL,
  part BOOLEAN NOT NULL,
  version BIGINT NOT NULL,
  CONSTRAINT l4_line_adds_up CHECK (gross_minor - discount_minor - credit_minor = cash_minor),
  CONSTRAINT line_not_negative CHECK (cash_minor >= 0 AND discount_minor >= 0 AND credit_minor >= 0),
  UNIQUE (claim_id, invoice_id)
);
-- L9: an invoice stands in at most one live claim, because it can be the key only once.
CREATE TABLE reservation (
  invoice_id BIGINT PRIMARY KEY REFERENCES invoice (id),
  batch_id BIGINT NOT NULL REFERENCES batch (id),
  claim_id BIGINT NOT NULL REFERENCES claim (id),
  INDEX (batch_id)
);

CREATE TABLE approval (
  id BIGINT PRIMARY KEY,
  batch_id BIGINT NOT NULL REFERENCES batch (id),
  round INT NOT NULL,
  step INT NOT NULL,
  person_id BIGINT NOT NULL REFERENCES person (id),
  outcome VARCHAR(20) NOT NULL,
  reason VARCHAR(500) NOT NULL,
  at DATETIME(6) NOT NULL,
  UNIQUE (batch_id, round, person_id)
);
CREATE TABLE approval_claim (
  approval_id BIGINT NOT NULL REFERENCES approval (id),
  claim_id BIGINT NOT NULL,
  digest VARCHAR(64) NOT NULL,
  PRIMARY KEY (approval_id, claim_id)
);

CREATE TABLE payment (
  id BIGINT PRIMARY KEY,
  batch_id BIGINT NOT NULL REFERENCES batch (id),
  claim_id BIGINT NOT NULL UNIQUE REFERENCES claim (id),
  bank_account_id BIGINT NOT NULL REFERENCES bank_account (id),
  vendor_id BIGINT NOT NULL REFERENCES vendor (id),
  payee VARCHAR(120) NOT NULL,
  currency VARCHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL,
  check_date DATE NOT NULL,
  ledger_date DATE NOT NULL,
  posted_entry_id BIGINT UNIQUE REFERENCES journal_entry (id),
  void_entry_id BIGINT UNIQUE REFERENCES journal_entry (id),
  version BIGINT NOT NULL,
  CONSTRAINT payment_positive CHECK (amount_minor > 0),
  INDEX (batch_id),
  INDEX (ledger_date)
);
CREATE TABLE settlement (
  id BIGINT PRIMARY KEY,
  invoice_id BIGINT NOT NULL REFERENCES invoice (id),
  kind VARCHAR(20) NOT NULL,
  currency VARCHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL,
  ledger_date DATE NOT NULL,
  batch_id BIGINT,
  payment_id BIGINT REFERENCES payment (id),
  entry_id BIGINT REFERENCES journal_entry (id),
  reverses_id BIGINT UNIQUE REFERENCES settlement (id),
  INDEX (invoice_id, ledger_date),
  INDEX (payment_id)
);

CREATE TABLE turn (
  id BIGINT PRIMARY KEY,
  bank_account_id BIGINT NOT NULL REFERENCES bank_account (id),
  serial BIGINT NOT NULL,
  batch_id BIGINT NOT NULL REFERENCES batch (id),
  person_id BIGINT NOT NULL REFERENCES person (id),
  started_at DATETIME(6) NOT NULL,
  last_deed_at DATETIME(6) NOT NULL,
  ended_at DATETIME(6),
  ended_how VARCHAR(300),
  open_account_id BIGINT AS (CASE WHEN ended_at IS NULL THEN bank_account_id END) PERSISTENT UNIQUE,
  version BIGINT NOT NULL,
  UNIQUE (bank_account_id, serial)
);
CREATE TABLE print_run (
  id BIGINT PRIMARY KEY,
  batch_id BIGINT NOT NULL REFERENCES batch (id),
  bank_account_id BIGINT NOT NULL REFERENCES bank_account (id),
  turn_serial BIGINT NOT NULL,
  made_at DATETIME(6) NOT NULL,
  made_by BIGINT NOT NULL REFERENCES person (id),
  sent_at DATETIME(6),
  version BIGINT NOT NULL
);
CREATE TABLE check_number (
  id BIGINT PRIMARY KEY,
  bank_account_id BIGINT NOT NULL REFERENCES bank_account (id),
  prefix VARCHAR(8) NOT NULL,
  stock VARCHAR(20) NOT NULL,
  number BIGINT NOT NULL,
  state VARCHAR(20) NOT NULL,
  origin VARCHAR(20) NOT NULL,
  payment_id BIGINT REFERENCES payment (id),
  explanation VARCHAR(300) NOT NULL,
  state_date DATE NOT NULL,
  steps INT NOT NULL,
  version BIGINT NOT NULL,
  -- a payment has at most one live number
  live_payment_id BIGINT AS (
    CASE WHEN state IN ('TAKEN', 'PRINTED', 'OUTSTANDING', 'STOPPED', 'CLEARED') THEN payment_id END) PERSISTENT UNIQUE,
  CONSTRAINT l3_once UNIQUE (bank_account_id, prefix, stock, number),
  INDEX (payment_id),
  INDEX (bank_account_id, state)
);
CREATE TABLE number_event (
  id BIGINT PRIMARY KEY,
  check_number_id BIGINT NOT NULL REFERENCES check_number (id),
  at DATETIME(6) NOT NULL,
  business_date DATE NOT NULL,
  person_id BIGINT NOT NULL REFERENCES person (id),
  to_state VARCHAR(20) NOT NULL,
  why VARCHAR(300) NOT NULL,
  -- 1, 2, 3 … in the life of its number, whatever the clocks say
  step INT NOT NULL,
  UNIQUE (check_number_id, step)
);
CREATE TABLE document (
  id BIGINT PRIMARY KEY,
  run_id BIGINT NOT NULL REFERENCES print_run (id),
  check_number_id BIGINT NOT NULL REFERENCES check_number (id),
  payment_id BIGINT NOT NULL REFERENCES payment (id),
  position INT NOT NULL,
  -- the first, second … rendering of its number
  serial INT NOT NULL,
  currency VARCHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL,
  pages INT NOT NULL,
  answer VARCHAR(20),
  answer_why VARCHAR(300) NOT NULL,
  answered_at DATETIME(6),
  answered_by BIGINT REFERENCES person (id),
  version BIGINT NOT NULL,
  UNIQUE (check_number_id, serial),
  INDEX (run_id, position),
  INDEX (payment_id)
);
-- What the stand-in printer laid into its tray, sheet by sheet.
CREATE TABLE tray_sheet (
  id BIGINT PRIMARY KEY,
  document_id BIGINT NOT NULL UNIQUE REFERENCES document (id),
  outcome VARCHAR(20) NOT NULL
);
-- What the stand-in printer will do wrong on its next job, for trying out bad luck.
CREATE TABLE stand_in_fault (
  bank_account_id BIGINT PRIMARY KEY REFERENCES bank_account (id),
  fault VARCHAR(20) NOT NULL,
  at_sheet INT NOT NULL
);

CREATE TABLE bank_file (
  id BIGINT PRIMARY KEY,
  bank_account_id BIGINT NOT NULL REFERENCES bank_account (id),
  layout_id BIGINT NOT NULL REFERENCES bank_file_layout (id),
  serial BIGINT NOT NULL,
  file_name VARCHAR(80) NOT NULL,
  made_at DATETIME(6) NOT NULL,
  made_by BIGINT NOT NULL REFERENCES person (id),
  content LONGBLOB NOT NULL,
  content_hash VARCHAR(64) NOT NULL,
  items INT NOT NULL,
  currency VARCHAR(3) NOT NULL,
  total_minor BIGINT NOT NULL,
  state VARCHAR(20) NOT NULL,
  answered_at DATETIME(6),
  answered_by BIGINT REFERENCES person (id),
  answer_note VARCHAR(300) NOT NULL,
  follows_id BIGINT REFERENCES bank_file (id),
  version BIGINT NOT NULL,
  UNIQUE (bank_account_id, serial)
);
-- L5: one event stands in at most one file not refused, because it names it in one column.
CREATE TABLE bank_event (
  id BIGINT PRIMARY KEY,
  bank_account_id BIGINT NOT NULL REFERENCES bank_account (id),
  check_number_id BIGINT NOT NULL REFERENCES check_number (id),
  batch_id BIGINT NOT NULL REFERENCES batch (id),
  kind VARCHAR(20) NOT NULL,
  currency VARCHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL,
  event_date DATE NOT NULL,
  payee VARCHAR(120) NOT NULL,
  file_id BIGINT REFERENCES bank_file (id),
  never_reported VARCHAR(300),
  version BIGINT NOT NULL,
  UNIQUE (check_number_id, kind),
  CONSTRAINT l5_one_end CHECK (file_id IS NULL OR never_reported IS NULL),
  INDEX (bank_account_id, file_id)
);
CREATE TABLE bank_file_item (
  file_id BIGINT NOT NULL REFERENCES bank_file (id),
  event_id BIGINT NOT NULL REFERENCES bank_event (id),
  position INT NOT NULL,
  PRIMARY KEY (file_id, event_id)
);

ALTER TABLE journal_entry ADD FOREIGN KEY (batch_id) REFERENCES batch (id);
ALTER TABLE journal_entry ADD FOREIGN KEY (payment_id) REFERENCES payment (id);
ALTER TABLE journal_entry ADD FOREIGN KEY (invoice_id) REFERENCES invoice (id);
