-- How the checks of a series stand on paper: versions that are only added, each in force from a day, so that there is always
-- a way back and every document can be drawn as it was printed.
CREATE TABLE paper_layout (
  id BIGINT PRIMARY KEY,
  series_id BIGINT NOT NULL REFERENCES number_series (id),
  version INT NOT NULL,
  in_force_from DATE NOT NULL,
  content MEDIUMTEXT NOT NULL,
  why VARCHAR(500) NOT NULL,
  made_at DATETIME(6) NOT NULL,
  made_by BIGINT NOT NULL REFERENCES person (id),
  CONSTRAINT one_version_once UNIQUE (series_id, version)
);
-- Whose test page came out before a layout was kept; the digest is that of its content.
CREATE TABLE paper_layout_test (
  series_id BIGINT NOT NULL REFERENCES number_series (id),
  digest CHAR(64) CHARACTER SET ascii NOT NULL,
  person_id BIGINT NOT NULL REFERENCES person (id),
  tested_at DATETIME(6) NOT NULL,
  PRIMARY KEY (series_id, digest, person_id)
);
GRANT SELECT, INSERT ON paper_layout TO ${appUser};
GRANT SELECT, INSERT ON paper_layout_test TO ${appUser};
-- By how much a printer draws beside the place on the stock of a series, in tenths of a millimetre.
CREATE TABLE printer_alignment (
  series_id BIGINT NOT NULL REFERENCES number_series (id),
  printer VARCHAR(40) NOT NULL,
  right_tenths INT NOT NULL CHECK (right_tenths BETWEEN -100 AND 100),
  down_tenths INT NOT NULL CHECK (down_tenths BETWEEN -100 AND 100),
  PRIMARY KEY (series_id, printer)
);
GRANT SELECT, INSERT, UPDATE ON printer_alignment TO ${appUser};
-- Which paper a clerk loads for the checks of a series, in the company's own words, and takes back afterwards.
ALTER TABLE number_series ADD COLUMN loading VARCHAR(120) NOT NULL DEFAULT '';
GRANT UPDATE (loading) ON number_series TO ${appUser};
-- A document keeps the version it was laid out on; without one, the layout that was there before anybody made one.
ALTER TABLE document_content
  MODIFY COLUMN layout VARCHAR(40) NULL,
  ADD COLUMN layout_id BIGINT NULL,
  ADD CONSTRAINT laid_out_on FOREIGN KEY (layout_id) REFERENCES paper_layout (id),
  ADD CONSTRAINT one_layout CHECK ((layout IS NULL) <> (layout_id IS NULL));
