-- How a person arranged a list: columns, their sizes and order, what it is sorted by, which groups are folded.
CREATE TABLE kept_list (
  person_id BIGINT NOT NULL REFERENCES person (id),
  list VARCHAR(40) NOT NULL,
  arrangement TEXT NOT NULL,
  PRIMARY KEY (person_id, list)
);
GRANT SELECT, INSERT, UPDATE ON kept_list TO ${appUser};
