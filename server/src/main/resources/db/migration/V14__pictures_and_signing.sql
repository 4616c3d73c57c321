-- Pictures that are drawn on paper, never changed: a document names the one it was printed with. A signature is sealed.
CREATE TABLE picture (
  id BIGINT PRIMARY KEY,
  format VARCHAR(3) NOT NULL CHECK (format IN ('PNG', 'SVG')),
  width DOUBLE NOT NULL CHECK (width > 0),
  height DOUBLE NOT NULL CHECK (height > 0),
  sealed BOOLEAN NOT NULL,
  content MEDIUMBLOB NOT NULL,
  made_at DATETIME(6) NOT NULL,
  made_by BIGINT NOT NULL REFERENCES person (id)
);
GRANT SELECT, INSERT ON picture TO ${appUser};
ALTER TABLE company ADD COLUMN logo_id BIGINT NULL, ADD CONSTRAINT logo_of_company FOREIGN KEY (logo_id) REFERENCES picture (id);
-- Who signs the checks of a series: a picture up to an amount, by hand above; a second person above another; and the largest
-- check there may be. In minor units of the account's currency.
ALTER TABLE number_series
  ADD COLUMN signature_id BIGINT NULL,
  ADD COLUMN signature_up_to_minor BIGINT NULL,
  ADD COLUMN second_above_minor BIGINT NULL,
  ADD COLUMN most_minor BIGINT NULL,
  ADD CONSTRAINT signature_of_series FOREIGN KEY (signature_id) REFERENCES picture (id),
  ADD CONSTRAINT signature_has_its_limit CHECK ((signature_id IS NULL) = (signature_up_to_minor IS NULL)),
  ADD CONSTRAINT signing_is_above_zero CHECK (COALESCE(signature_up_to_minor, 1) > 0 AND COALESCE(second_above_minor, 1) > 0
    AND COALESCE(most_minor, 1) > 0);
GRANT UPDATE (signature_id, signature_up_to_minor, second_above_minor, most_minor) ON number_series TO ${appUser};
