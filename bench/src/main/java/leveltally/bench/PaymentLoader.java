package leveltally.bench;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;

/**
 * Fills a database with posted checks of two years, a thousand a batch: most cleared, one of a hundred outstanding, one of two
 * hundred voided. Set by set, without the triggers but for those of what the bank did: what is measured reads, or writes these alone.
 */
final class PaymentLoader {
    private static final int A_BATCH = 1_000;
    private static final int DAYS = 700;
    private static final LocalDate FIRST = Loader.CHECK_DATE.minusDays(DAYS);
    private static final long BASE = 100_000_000L;
    /** What is measured writes into these under their triggers. */
    private static final String MEASURED =
            "'bank_movement', 'bank_match', 'bank_event', 'bank_file', 'bank_file_item', 'bank_file_part'";

    private final Connection root;
    private final long account;
    private final long way;
    private final long series;
    private int loaded;

    PaymentLoader(Connection root, long account) throws SQLException {
        this.root = root;
        this.account = account;
        way = number("SELECT id FROM way_to_pay");
        series = number("SELECT id FROM number_series");
        List<String> triggers = new ArrayList<>();
        try (Statement sql = root.createStatement();
                ResultSet row = sql.executeQuery(
                        "SELECT trigger_name FROM information_schema.triggers WHERE trigger_schema = DATABASE()"
                                + " AND event_object_table NOT IN (" + MEASURED + ")")) {
            while (row.next()) {
                triggers.add(row.getString(1));
            }
        }
        for (String trigger : triggers) {
            run("DROP TRIGGER " + trigger);
        }
        run("SET FOREIGN_KEY_CHECKS = 0");
        run("SET UNIQUE_CHECKS = 0");
    }

    long series() {
        return series;
    }

    private long number(String sql) throws SQLException {
        try (Statement query = root.createStatement();
                ResultSet row = query.executeQuery(sql)) {
            row.next();
            return row.getLong(1);
        }
    }

    private void run(String sql) throws SQLException {
        try (Statement statement = root.createStatement()) {
            statement.execute(sql);
        }
    }

    /** Loads more of them, up to so many. */
    void upTo(int size) throws SQLException {
        String seq = " FROM seq_" + loaded + "_to_" + (size - 1) + " q";
        String batches = " FROM seq_" + loaded / A_BATCH + "_to_" + ((size - 1) / A_BATCH) + " q";
        String day = "DATE_ADD('" + FIRST + "', INTERVAL (q.seq % " + DAYS + ") DAY)";
        String id = "(" + BASE + " + q.seq)";
        String vendor = "(1 + q.seq % " + Loader.VENDORS + ")";
        String amount = "(1000 + q.seq * 7919 % 900000)";
        String outstanding = "q.seq % 100 = 0";
        String voided = "q.seq % 200 = 1";
        run(
                "INSERT INTO batch (id, name, note, bank_account_id, way_id, method, check_date, ledger_date, state, approval_round,"
                        + " prepared_by, prepared_at, changed_by, changed_at, changed_what, version, purpose, claim_order)"
                        + " SELECT " + id + ", CONCAT('Run ', q.seq), '', " + account + ", " + way + ", 'CHECK', '"
                        + FIRST + "', '"
                        + FIRST + "', 'POSTED', 0, 1, NOW(6), 1, NOW(6), 'posted it', 1, 'RUN', 'PAYEE'" + batches);
        run(
                "INSERT INTO invoice (id, vendor_id, remit_to_id, kind, reference, invoice_date, due_date, ledger_date, currency,"
                        + " amount_minor, discountable_minor, discount_rate, open_minor, discount_taken_minor, payables_account_id,"
                        + " own_check, version, open_since) SELECT " + id + ", " + vendor + ", " + vendor
                        + ", 'INVOICE', CONCAT('R-', q.seq), " + day + ", " + day + ", " + day + ", 'USD', " + amount
                        + ", " + amount
                        + ", 0, IF(" + voided + ", " + amount + ", 0), 0, 2, 0, 0, " + day + seq);
        run("INSERT INTO claim (id, batch_id, vendor_id, remit_to_id, payee, address, currency, amount_minor, version)"
                + " SELECT " + id + ", " + BASE + " + q.seq DIV " + A_BATCH + ", " + vendor + ", " + vendor
                + ", CONCAT('Vendor ', " + vendor + "), '1 Slipway Road', 'USD', " + amount + ", 0" + seq);
        run("INSERT INTO claim_line (id, claim_id, kind, invoice_id, reference, currency, gross_minor, discount_minor,"
                + " credit_minor, cash_minor, part, version) SELECT " + id + ", " + id + ", 'INVOICE', " + id
                + ", CONCAT('R-', q.seq), 'USD', " + amount + ", 0, 0, " + amount + ", 0, 0" + seq);
        run(
                "INSERT INTO payment (id, batch_id, claim_id, bank_account_id, vendor_id, payee, currency, amount_minor, check_date,"
                        + " ledger_date, posted_entry_id, undone_entry_id, version, state, state_date, state_why, steps) SELECT "
                        + id
                        + ", " + BASE + " + q.seq DIV " + A_BATCH + ", " + id + ", " + account + ", " + vendor
                        + ", CONCAT('Vendor ', " + vendor + "), 'USD', " + amount + ", " + day + ", " + day + ", " + id
                        + ", IF("
                        + voided + ", " + id + " + 500000000, NULL), 1, IF(" + outstanding + ", 'OUTSTANDING', IF("
                        + voided
                        + ", 'VOIDED', 'CLEARED')), " + day + ", '', 3" + seq);
        run(
                "INSERT INTO check_number (id, series_id, number, state, origin, payment_id, explanation, state_date, steps, version)"
                        + " SELECT " + id + ", " + series + ", q.seq + 1, 'PRINTED', 'PRINTED_HERE', " + id + ", '', "
                        + day + ", 2, 1"
                        + seq);
        for (int step = 1; step <= 3; step++) {
            String state =
                    step == 1 ? "'PREPARED'" : step == 2 ? "'OUTSTANDING'" : "IF(" + voided + ", 'VOIDED', 'CLEARED')";
            run("INSERT INTO payment_event (payment_id, step, at, business_date, person_id, to_state, why) SELECT " + id
                    + ", "
                    + step + ", NOW(6), DATE_ADD(" + day + ", INTERVAL " + (step == 3 ? 9 : 0) + " DAY), 1, " + state
                    + ", ''"
                    + seq + (step == 3 ? " WHERE NOT " + outstanding.replace("=", "<=>") : ""));
        }
        entries(id, "", day, amount, seq, "PAYMENT", "2", "1");
        entries(
                "(" + id + " + 500000000)",
                " WHERE " + voided,
                "DATE_ADD(" + day + ", INTERVAL 9 DAY)",
                amount,
                seq,
                "VOID",
                "1",
                "2");
        entries("(" + id + " + 250000000)", "", day, amount, seq, "INVOICE", "4", "2");
        run(
                "INSERT INTO settlement (id, invoice_id, kind, currency, amount_minor, ledger_date, payment_id, entry_id) SELECT "
                        + id + ", " + id + ", 'CASH', 'USD', " + amount + ", " + day + ", " + id + ", " + id + seq);
        run(
                "ANALYZE TABLE invoice, claim, claim_line, payment, check_number, payment_event, journal_entry, journal_line,"
                        + " settlement, batch");
        loaded = size;
    }

    private void entries(
            String id, String where, String day, String amount, String seq, String kind, String debit, String credit)
            throws SQLException {
        run("INSERT INTO journal_entry (id, ledger_date, month, kind, text, made_at, made_by) SELECT " + id + ", " + day
                + ", DATE_FORMAT(" + day + ", '%Y-%m'), '" + kind + "', 'x', NOW(6), 1" + seq + where);
        run("INSERT INTO journal_line (id, entry_id, account_id, currency, debit_minor, credit_minor) SELECT 2 * " + id
                + ", " + id + ", " + debit + ", 'USD', " + amount + ", 0" + seq + where);
        run("INSERT INTO journal_line (id, entry_id, account_id, currency, debit_minor, credit_minor) SELECT 2 * " + id
                + " + 1, " + id + ", " + credit + ", 'USD', 0, " + amount + seq + where);
    }
}
