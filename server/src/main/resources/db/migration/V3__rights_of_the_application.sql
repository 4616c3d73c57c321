-- The application's account: it reads everything, appends facts, and changes only what has a life of its own.
-- No UPDATE or DELETE anywhere on the journal, settlements, approvals, the audit trail or the history of numbers.
GRANT SELECT, INSERT ON journal_entry TO ${appUser};
GRANT SELECT, INSERT ON journal_line TO ${appUser};
GRANT SELECT, INSERT ON settlement TO ${appUser};
GRANT SELECT, INSERT ON audit_record TO ${appUser};
GRANT SELECT, INSERT ON approval TO ${appUser};
GRANT SELECT, INSERT ON approval_claim TO ${appUser};
GRANT SELECT, INSERT ON number_event TO ${appUser};
GRANT SELECT, INSERT ON invoice_line TO ${appUser};
GRANT SELECT, INSERT ON period_total TO ${appUser};
GRANT SELECT, INSERT ON bank_file_item TO ${appUser};
GRANT SELECT, INSERT ON bank_file_layout TO ${appUser};
GRANT SELECT, INSERT ON batch_hand TO ${appUser};
GRANT SELECT, INSERT ON tray_sheet TO ${appUser};
GRANT SELECT, INSERT ON ledger_account TO ${appUser};
GRANT SELECT, INSERT ON remit_to TO ${appUser};
GRANT SELECT, INSERT ON sign_in_attempt TO ${appUser};

GRANT SELECT, UPDATE ON audit_head TO ${appUser};
GRANT SELECT, INSERT, UPDATE ON company TO ${appUser};
GRANT SELECT, INSERT, UPDATE ON period TO ${appUser};
GRANT SELECT, INSERT, UPDATE ON period_lock TO ${appUser};
GRANT SELECT, INSERT, UPDATE ON bank_account TO ${appUser};
GRANT SELECT, INSERT, UPDATE ON vendor TO ${appUser};
GRANT SELECT, INSERT, UPDATE (hold_reason, own_check, version) ON invoice TO ${appUser};
GRANT SELECT, INSERT, UPDATE ON batch TO ${appUser};
GRANT SELECT, INSERT, UPDATE ON payment TO ${appUser};
GRANT SELECT, INSERT, UPDATE ON turn TO ${appUser};
GRANT SELECT, INSERT, UPDATE ON print_run TO ${appUser};
GRANT SELECT, INSERT, UPDATE ON check_number TO ${appUser};
GRANT SELECT, INSERT, UPDATE ON document TO ${appUser};
GRANT SELECT, INSERT, UPDATE ON bank_file TO ${appUser};
GRANT SELECT, INSERT, UPDATE ON bank_event TO ${appUser};
GRANT SELECT, INSERT, UPDATE ON person TO ${appUser};

GRANT SELECT, INSERT, UPDATE, DELETE ON claim TO ${appUser};
GRANT SELECT, INSERT, UPDATE, DELETE ON claim_line TO ${appUser};
GRANT SELECT, INSERT, DELETE ON reservation TO ${appUser};
GRANT SELECT, INSERT, UPDATE, DELETE ON stand_in_fault TO ${appUser};
GRANT SELECT, INSERT, DELETE ON person_role TO ${appUser};

GRANT SELECT, INSERT ON row_seq TO ${appUser};
GRANT SELECT, INSERT ON invoice_seq TO ${appUser};
GRANT SELECT, INSERT ON batch_seq TO ${appUser};
