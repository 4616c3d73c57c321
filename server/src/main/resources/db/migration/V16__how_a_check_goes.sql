-- How a check reaches its payee, where it does not go by mail.
CREATE TABLE claim_delivery (
  claim_id BIGINT PRIMARY KEY,
  delivery VARCHAR(10) NOT NULL CHECK (delivery IN ('HAND_OVER', 'COURIER')),
  CONSTRAINT delivery_of_claim FOREIGN KEY (claim_id) REFERENCES claim (id) ON DELETE CASCADE
);
GRANT SELECT, INSERT, UPDATE, DELETE ON claim_delivery TO ${appUser};
