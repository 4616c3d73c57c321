-- What a payment without paper is for, kept as its payee is told when it was made; a check's stands with its document.
CREATE TABLE payment_content (
  payment_id BIGINT PRIMARY KEY REFERENCES payment (id),
  content LONGTEXT NOT NULL CHECK (JSON_VALID(content))
);
GRANT SELECT, INSERT ON payment_content TO ${appUser};
