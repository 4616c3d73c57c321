-- The company's printers. A queue of the printing system is named by an administrator; the other two are always there, the
-- stand-in only in the demo.
CREATE TABLE printer (
  id BIGINT PRIMARY KEY,
  name VARCHAR(60) NOT NULL UNIQUE,
  kind VARCHAR(12) NOT NULL,
  queue VARCHAR(127) NOT NULL DEFAULT '',
  in_use BOOLEAN NOT NULL DEFAULT TRUE,
  CONSTRAINT queue_of_its_kind CHECK (kind IN ('STAND_IN', 'OWN', 'QUEUE') AND (kind = 'QUEUE') = (queue <> ''))
);
INSERT INTO printer (id, name, kind) VALUES
  (NEXT VALUE FOR work_seq, 'Stand-in tray', 'STAND_IN'), (NEXT VALUE FOR work_seq, 'My own printer', 'OWN');
GRANT SELECT, INSERT ON printer TO ${appUser};
GRANT UPDATE (name, queue, in_use) ON printer TO ${appUser};

-- Each time a run was given to a printer. Without an outcome it is under way, or nobody knows: only a refusal, which is certain,
-- lets a run be given once more.
CREATE TABLE handing_over (
  id BIGINT PRIMARY KEY,
  run_id BIGINT NOT NULL REFERENCES print_run (id),
  printer_id BIGINT NOT NULL REFERENCES printer (id),
  at DATETIME(6) NOT NULL,
  person_id BIGINT NOT NULL REFERENCES person (id),
  outcome VARCHAR(12),
  said VARCHAR(300) NOT NULL DEFAULT '',
  job VARCHAR(160) NOT NULL DEFAULT '',
  held_run_id BIGINT AS (CASE WHEN outcome = 'REFUSED' THEN NULL ELSE run_id END) PERSISTENT UNIQUE,
  CONSTRAINT outcome_of_a_printer CHECK (outcome IN ('ACCEPTED', 'REFUSED', 'NOT_KNOWN')),
  INDEX (run_id),
  INDEX (person_id, id)
);
INSERT INTO handing_over (id, run_id, printer_id, at, person_id, outcome)
  SELECT NEXT VALUE FOR work_seq, r.id, p.id, r.sent_at, r.made_by, 'ACCEPTED' FROM print_run r
  JOIN printer p ON p.kind = 'STAND_IN' WHERE r.sent_at IS NOT NULL;
DELIMITER //
CREATE TRIGGER handing_over_is_said_once BEFORE UPDATE ON handing_over FOR EACH ROW
BEGIN
  IF OLD.outcome IS NOT NULL THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'what a printer answered is not changed';
  END IF;
END//
DELIMITER ;
GRANT SELECT, INSERT ON handing_over TO ${appUser};
GRANT UPDATE (outcome, said, job) ON handing_over TO ${appUser};

-- By how much each printer draws beside the place.
ALTER TABLE printer_alignment ADD COLUMN printer_id BIGINT;
UPDATE printer_alignment SET printer_id = (SELECT id FROM printer WHERE kind = 'STAND_IN');
ALTER TABLE printer_alignment
  MODIFY COLUMN printer_id BIGINT NOT NULL,
  DROP PRIMARY KEY,
  DROP COLUMN printer,
  ADD PRIMARY KEY (series_id, printer_id),
  ADD CONSTRAINT aligned_printer FOREIGN KEY (printer_id) REFERENCES printer (id);
