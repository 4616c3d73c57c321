-- What somebody typed is made once, a schedule of a name goes on once, and one reference of a vendor is paid ahead of once.
ALTER TABLE batch
  -- what the page called it while it was typed: the same deed, sent again because its answer was lost, is known by it
  ADD COLUMN typed_as VARCHAR(40),
  ADD CONSTRAINT typed_once UNIQUE (prepared_by, typed_as);

-- Those that go on under one name are told apart by their numbers first.
UPDATE payment_schedule s JOIN (SELECT name, MIN(id) AS first FROM payment_schedule WHERE ended_on IS NULL GROUP BY name) k
  ON k.name = s.name SET s.name = CONCAT(LEFT(s.name, 60), ' ', s.id) WHERE s.ended_on IS NULL AND s.id <> k.first;
ALTER TABLE payment_schedule
  ADD COLUMN standing_name VARCHAR(80) AS (CASE WHEN ended_on IS NULL THEN name END) PERSISTENT,
  ADD CONSTRAINT goes_on_once UNIQUE (standing_name);

-- What is paid ahead by a payment that stands or is on its way.
CREATE VIEW paid_ahead AS
  SELECT c.vendor_id, l.reference, b.id AS batch_id, b.name FROM claim_line l
  JOIN claim c ON c.id = l.claim_id JOIN batch b ON b.id = c.batch_id AND b.state <> 'WITHDRAWN'
  LEFT JOIN payment p ON p.claim_id = c.id
  WHERE l.kind = 'PREPAYMENT' AND COALESCE(p.state, '') NOT IN ('TAKEN_OUT', 'VOIDED', 'REVERSED');
GRANT SELECT ON paid_ahead TO ${appUser};

DELIMITER //
-- Two batches that pay ahead of one reference would both reach the bank before the second is refused by the ledger.
CREATE TRIGGER ahead_of_a_reference_once BEFORE INSERT ON claim_line FOR EACH ROW
BEGIN
  DECLARE payee BIGINT;
  -- what is paid once more in place of another keeps the reference of that
  IF NEW.kind = 'PREPAYMENT' AND NEW.kept_of_claim_id IS NULL THEN
    SELECT vendor_id INTO payee FROM claim WHERE id = NEW.claim_id;
    -- whoever types it at the same moment waits here
    SELECT id INTO payee FROM vendor WHERE id = payee FOR UPDATE;
    IF EXISTS (SELECT 1 FROM paid_ahead a WHERE a.vendor_id = payee AND a.reference = NEW.reference LOCK IN SHARE MODE) THEN
      SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L9: something is paid ahead of this reference already';
    END IF;
  END IF;
END//
DELIMITER ;

-- A copy that was brought back before lacked the right to what is called, so that no vendor could be merged there.
GRANT EXECUTE ON PROCEDURE merge_vendor TO ${appUser};
