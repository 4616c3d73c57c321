-- By what else a vendor may be paid, beside the way it prefers; a payment goes so where somebody says so.
ALTER TABLE vendor ADD COLUMN also_by SET ('CHECK', 'ACH', 'CREDIT_TRANSFER', 'WIRE', 'CARD') NOT NULL DEFAULT '';
