-- What a vendor wishes of the papers that go with its payments; advice that goes by mail.
ALTER TABLE vendor
  ADD COLUMN advice VARCHAR(10) NOT NULL DEFAULT 'PAPER' CHECK (advice IN ('PAPER', 'MAIL', 'BOTH')),
  ADD COLUMN check_delivery VARCHAR(10) NOT NULL DEFAULT 'MAIL'
    CHECK (check_delivery IN ('MAIL', 'HAND_OVER', 'COURIER')),
  -- how dates are written for it; none where the layout says it
  ADD COLUMN date_style VARCHAR(20);
-- an address was asked for as the one where advice goes; the paper stays until somebody says otherwise
UPDATE vendor SET advice = 'BOTH' WHERE email <> '';
ALTER TABLE vendor ADD CONSTRAINT advice_by_mail_has_an_address CHECK (advice = 'PAPER' OR email <> '');

-- how a check goes can differ from how the vendor's usually go in every direction
ALTER TABLE claim_delivery
  MODIFY delivery VARCHAR(10) NOT NULL CHECK (delivery IN ('MAIL', 'HAND_OVER', 'COURIER'));

-- as the vendor wished when the payment was made; what was promised on its stub stands
ALTER TABLE payment ADD COLUMN advice VARCHAR(10) NOT NULL DEFAULT 'PAPER' CHECK (advice IN ('PAPER', 'MAIL', 'BOTH'));

ALTER TABLE mail
  MODIFY person_id BIGINT,
  -- what it advises of, where it goes to a payee; its list is drawn from what was printed
  ADD COLUMN payment_id BIGINT,
  -- by which a mail that comes back is known
  ADD COLUMN message_id VARCHAR(100) UNIQUE,
  ADD CONSTRAINT advised_payment FOREIGN KEY (payment_id) REFERENCES payment (id),
  ADD CONSTRAINT mail_goes_to_one CHECK ((person_id IS NULL) <> (payment_id IS NULL)),
  ADD CONSTRAINT mail_state CHECK (state IN ('WAITING', 'SENT', 'GIVEN_UP', 'RETURNED'));

-- ------------------------------------------------------------ L6, asked once for each payment of a large batch
-- The same law as before, without a table made for each payment.
DROP PROCEDURE must_be_approved;
DELIMITER //
CREATE PROCEDURE must_be_approved(IN paying BIGINT)
BEGIN
  DECLARE steps INT;
  DECLARE short INT;
  SELECT COUNT(*), COALESCE(SUM(s.needed > (
        SELECT COUNT(DISTINCT a.person_id) FROM approval a
        JOIN approval_claim ac ON ac.approval_id = a.id AND ac.claim_id = c.id AND ac.digest = c.digest
        WHERE a.batch_id = s.batch_id AND a.round = s.round AND a.step = s.step AND a.outcome = 'APPROVED')), 0)
    INTO steps, short
  FROM payment p
  JOIN claim c ON c.id = p.claim_id AND c.batch_id = p.batch_id AND c.amount_minor = p.amount_minor
  JOIN batch b ON b.id = c.batch_id
  JOIN approval_step s ON s.batch_id = b.id AND s.round = b.approval_round
  WHERE p.id = paying;
  IF steps = 0 OR short > 0 THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L6: the claim is not approved as it stands';
  END IF;
END//
DELIMITER ;
