-- Banks tell the files of one day apart by whom they come from and go to, whatever ways of ours made them.
ALTER TABLE bank_file
  -- what its letter of the day counts within; the way where its bank tells files apart by their ids
  ADD COLUMN day_group VARCHAR(60) NOT NULL DEFAULT '' AFTER day_number;
UPDATE bank_file SET day_group = CONCAT('way ', way_id) WHERE way_id IS NOT NULL;
ALTER TABLE bank_file
  ADD INDEX (way_id, made_on),
  DROP INDEX one_of_its_day,
  ADD UNIQUE one_of_its_group (day_group, made_on, day_number),
  ADD CONSTRAINT counted_in_a_group CHECK ((day_group <> '') = (day_number IS NOT NULL));
