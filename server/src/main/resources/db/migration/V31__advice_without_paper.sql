-- What a payment without paper is for, kept as its payee is told when it was made; a check's stands with its document.
CREATE TABLE payment_content (
  payment_id BIGINT PRIMARY KEY REFERENCES payment (id),
  content LONGTEXT NOT NULL CHECK (JSON_VALID(content))
);
GRANT SELECT, INSERT ON payment_content TO ${appUser};

-- What a vendor was paid in a period, sent as one sheet.
ALTER TABLE mail
  DROP CONSTRAINT mail_goes_to_one,
  ADD COLUMN vendor_id BIGINT,
  ADD COLUMN paid_from DATE,
  ADD COLUMN paid_to DATE,
  ADD CONSTRAINT sheet_of_vendor FOREIGN KEY (vendor_id) REFERENCES vendor (id),
  ADD CONSTRAINT mail_goes_to_one CHECK ((person_id IS NULL) + (payment_id IS NULL) + (vendor_id IS NULL) = 2),
  ADD CONSTRAINT sheet_of_a_period CHECK ((vendor_id IS NULL) = (paid_from IS NULL) AND (vendor_id IS NULL) = (paid_to IS NULL));
