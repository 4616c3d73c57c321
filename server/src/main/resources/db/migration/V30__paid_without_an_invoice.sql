-- Payments without an invoice: as they are typed, and as they fall due again and again.

-- whether a second person confirms the address of a payee who is paid once, before a check goes there
ALTER TABLE company ADD COLUMN one_time_by_two BOOLEAN NOT NULL DEFAULT TRUE;

-- A payment that falls due again and again. It pays nothing by itself: each of its days is taken into a batch, or passed over.
CREATE TABLE payment_schedule (
  id BIGINT PRIMARY KEY,
  name VARCHAR(80) NOT NULL CHECK (name <> ''),
  way_id BIGINT NOT NULL REFERENCES way_to_pay (id),
  vendor_id BIGINT NOT NULL REFERENCES vendor (id),
  reference VARCHAR(40) NOT NULL CHECK (reference <> ''),
  said VARCHAR(300) NOT NULL CHECK (said <> ''),
  currency CHAR(3) NOT NULL,
  amount_minor BIGINT NOT NULL CHECK (amount_minor > 0),
  rhythm VARCHAR(10) NOT NULL CHECK (rhythm IN ('WEEKLY', 'TWO_WEEKS', 'MONTHLY', 'QUARTERLY', 'YEARLY')),
  first_on DATE NOT NULL,
  until_on DATE,
  -- the day somebody ended it; none of its days is proposed any more
  ended_on DATE,
  ended_why VARCHAR(200) NOT NULL DEFAULT '',
  kept_by BIGINT NOT NULL REFERENCES person (id),
  kept_at TIMESTAMP(6) NOT NULL,
  -- how often a day of it was taken into a batch; counted so that of two who do it at once one begins again
  takings INT NOT NULL DEFAULT 0,
  version BIGINT NOT NULL,
  CHECK (until_on IS NULL OR until_on >= first_on),
  CHECK (ended_on IS NULL OR ended_why <> '')
);
-- Whoever ever said what it pays: none of them approves that (law L7).
CREATE TABLE schedule_hand (
  schedule_id BIGINT NOT NULL REFERENCES payment_schedule (id),
  person_id BIGINT NOT NULL REFERENCES person (id),
  PRIMARY KEY (schedule_id, person_id)
);
-- A day of it that is not paid.
CREATE TABLE schedule_pass (
  schedule_id BIGINT NOT NULL REFERENCES payment_schedule (id),
  due_on DATE NOT NULL,
  why VARCHAR(200) NOT NULL CHECK (why <> ''),
  passed_by BIGINT NOT NULL REFERENCES person (id),
  passed_at TIMESTAMP(6) NOT NULL,
  PRIMARY KEY (schedule_id, due_on)
);
-- What was typed for a claim of a batch of direct payments, and which day of which schedule it pays.
CREATE TABLE direct_entry (
  claim_id BIGINT PRIMARY KEY REFERENCES claim (id) ON DELETE CASCADE,
  -- what it is for, in the words of whoever typed it
  said VARCHAR(300) NOT NULL,
  schedule_id BIGINT REFERENCES payment_schedule (id),
  due_on DATE,
  INDEX (schedule_id, due_on),
  CHECK ((schedule_id IS NULL) = (due_on IS NULL))
);
-- The days that are paid: by a payment that stands, or one that replaces it, in a batch that is not withdrawn.
CREATE VIEW schedule_paid AS
  WITH RECURSIVE chain AS (
    SELECT d.schedule_id, d.due_on, d.claim_id FROM direct_entry d WHERE d.schedule_id IS NOT NULL
    UNION ALL
    SELECT k.schedule_id, k.due_on, l.claim_id FROM chain k JOIN claim_line l ON l.kept_of_claim_id = k.claim_id)
  SELECT DISTINCT k.schedule_id, k.due_on, b.id AS batch_id, b.name FROM chain k
  JOIN claim c ON c.id = k.claim_id JOIN batch b ON b.id = c.batch_id AND b.state <> 'WITHDRAWN'
  LEFT JOIN payment p ON p.claim_id = c.id WHERE COALESCE(p.state, '') NOT IN ('TAKEN_OUT', 'VOIDED', 'REVERSED');
GRANT SELECT ON schedule_paid TO ${appUser};

DELIMITER //
-- A day of a schedule is paid once. Its row counts each taking, so that whoever read it before another's is refused here.
CREATE TRIGGER direct_entry_pays_its_day_once BEFORE INSERT ON direct_entry FOR EACH ROW
BEGIN
  IF NOT EXISTS (SELECT 1 FROM claim c JOIN batch b ON b.id = c.batch_id
      WHERE c.id = NEW.claim_id AND b.purpose = 'DIRECT' AND b.state = 'DRAFT') THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L6: what was typed is written in the draft of its batch';
  END IF;
  IF NEW.schedule_id IS NOT NULL THEN
    UPDATE payment_schedule SET takings = takings + 1 WHERE id = NEW.schedule_id;
    IF EXISTS (SELECT 1 FROM schedule_pass s WHERE s.schedule_id = NEW.schedule_id AND s.due_on = NEW.due_on)
      OR EXISTS (SELECT 1 FROM schedule_paid x WHERE x.schedule_id = NEW.schedule_id AND x.due_on = NEW.due_on) THEN
      SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L9: this day of the schedule is paid or passed over already';
    END IF;
  END IF;
END//
CREATE TRIGGER pass_of_a_day_that_waits BEFORE INSERT ON schedule_pass FOR EACH ROW
BEGIN
  UPDATE payment_schedule SET takings = takings + 1 WHERE id = NEW.schedule_id;
  IF EXISTS (SELECT 1 FROM schedule_paid x WHERE x.schedule_id = NEW.schedule_id AND x.due_on = NEW.due_on) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L9: this day of the schedule is paid already';
  END IF;
END//
CREATE TRIGGER direct_entry_stands BEFORE UPDATE ON direct_entry FOR EACH ROW
BEGIN
  SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L6: what was typed is written anew, not changed';
END//
CREATE TRIGGER schedule_begun_by AFTER INSERT ON payment_schedule FOR EACH ROW
BEGIN
  INSERT INTO schedule_hand (schedule_id, person_id) VALUES (NEW.id, NEW.kept_by);
END//
CREATE TRIGGER schedule_changed_by AFTER UPDATE ON payment_schedule FOR EACH ROW
BEGIN
  INSERT IGNORE INTO schedule_hand (schedule_id, person_id) VALUES (NEW.id, NEW.kept_by);
END//
CREATE TRIGGER schedule_keeps_its_payee BEFORE UPDATE ON payment_schedule FOR EACH ROW
BEGIN
  IF NEW.vendor_id <> OLD.vendor_id OR NEW.currency <> OLD.currency OR OLD.ended_on IS NOT NULL THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L6: a schedule keeps its payee, and what ended stays ended';
  END IF;
END//
DELIMITER ;
GRANT SELECT, INSERT ON payment_schedule TO ${appUser};
GRANT SELECT ON schedule_hand TO ${appUser};
GRANT UPDATE (name, way_id, reference, said, amount_minor, rhythm, first_on, until_on, ended_on, ended_why, kept_by, kept_at, version)
  ON payment_schedule TO ${appUser};
GRANT SELECT, INSERT, DELETE ON schedule_pass TO ${appUser};
GRANT SELECT, INSERT ON direct_entry TO ${appUser};
