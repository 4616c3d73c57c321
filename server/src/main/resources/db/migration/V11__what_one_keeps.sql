-- How a person arranged a list: columns, their sizes and order, what it is sorted by, which groups are folded.
CREATE TABLE kept_list (
  person_id BIGINT NOT NULL REFERENCES person (id),
  list VARCHAR(40) NOT NULL,
  arrangement TEXT NOT NULL,
  PRIMARY KEY (person_id, list)
);
GRANT SELECT, INSERT, UPDATE ON kept_list TO ${appUser};
-- What a vendor calls itself was kept by mistake, or is another's by now.
GRANT DELETE ON vendor_identifier TO ${appUser};
-- Whether a damaged sheet may be printed again on its own number: only where we print the number ourselves.
ALTER TABLE number_series
  ADD COLUMN same_number_reprint BOOLEAN NOT NULL DEFAULT FALSE,
  ADD CONSTRAINT same_number_on_blank_stock CHECK (NOT same_number_reprint OR stock = 'BLANK');
GRANT UPDATE (same_number_reprint) ON number_series TO ${appUser};
DELIMITER //
CREATE TRIGGER printed_again_where_allowed BEFORE UPDATE ON document FOR EACH ROW
BEGIN
  IF NEW.answer = 'AGAIN' AND NOT OLD.answer <=> 'AGAIN'
    AND NOT EXISTS (SELECT 1 FROM check_number n JOIN number_series s ON s.id = n.series_id
      JOIN payment p ON p.id = n.payment_id
      WHERE n.id = NEW.check_number_id AND n.state = 'TAKEN' AND s.same_number_reprint AND p.posted_entry_id IS NULL) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'a number is printed again only where its series allows it, before posting';
  END IF;
END//
DELIMITER ;
