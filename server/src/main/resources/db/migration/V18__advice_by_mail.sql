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
