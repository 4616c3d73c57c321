-- What is paid ahead of an invoice: a line of a claim until it is posted, and from then on an item of its own that invoices
-- are matched with. It stands on the account its line debits, until it is used up, sent back, or its payment undone.

ALTER TABLE claim_line
  -- what is paid ahead is matched with no invoice before
  ADD COLUMN usable_from DATE,
  ADD CONSTRAINT usable_when_ahead CHECK (usable_from IS NULL OR kind = 'PREPAYMENT');
ALTER TABLE invoice
  -- the line by which it was paid ahead
  ADD COLUMN ahead_line_id BIGINT UNIQUE REFERENCES claim_line (id),
  ADD CONSTRAINT ahead_by_its_line CHECK ((ahead_line_id IS NOT NULL) = (kind = 'PREPAYMENT'));
DELIMITER //
-- L4: a prepayment is what the line of a posted payment paid, on that line's account, from the day the ledger has it.
CREATE TRIGGER prepayment_as_it_was_paid BEFORE INSERT ON invoice FOR EACH ROW
BEGIN
  IF NEW.ahead_line_id IS NOT NULL AND NOT EXISTS (
      SELECT 1 FROM claim_line l JOIN payment p ON p.claim_id = l.claim_id JOIN journal_entry e ON e.id = p.posted_entry_id
      JOIN vendor v ON v.id = p.vendor_id JOIN claim_line_account x ON x.line_id = l.id
      WHERE l.id = NEW.ahead_line_id AND l.kind = 'PREPAYMENT' AND p.undone_entry_id IS NULL
        AND NEW.vendor_id IN (v.id, v.merged_into_id) AND l.currency = NEW.currency AND l.gross_minor = NEW.amount_minor
        AND x.account_id = NEW.payables_account_id AND e.ledger_date = NEW.ledger_date) THEN
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'L4: a prepayment is what a posted payment paid ahead';
  END IF;
END//
DELIMITER ;
