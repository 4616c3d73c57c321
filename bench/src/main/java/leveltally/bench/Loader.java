package leveltally.bench;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.LocalDate;
import java.time.YearMonth;
import java.time.ZoneOffset;
import java.util.Random;

/**
 * Fills an empty database with a company, 50,000 vendors and open invoices. Whatever the number of invoices, the same
 * 10,000 qualify for the criteria of the bench: spread at random over the table, as they would be after a year of work.
 */
final class Loader {
    static final int VENDORS = 50_000;
    static final int QUALIFYING = 10_000;
    /** Tomorrow: a check date lies between today and sixty days on. */
    static final LocalDate CHECK_DATE = LocalDate.now(ZoneOffset.UTC).plusDays(1);

    static final LocalDate DUE_BY = CHECK_DATE.plusDays(7);
    static final LocalDate NEXT_RUN = CHECK_DATE.plusDays(14);
    private static final LocalDate DATED = CHECK_DATE.minusDays(24);
    private static final int BLOCK = 5_000;
    private static final long FIRST_INVOICE = 10_001;

    private final Connection root;
    private final Random random = new Random(1);
    private long next = FIRST_INVOICE;

    Loader(Connection root) {
        this.root = root;
    }

    /** What surrounds the invoices: once. */
    void company() throws SQLException {
        try (Statement sql = root.createStatement()) {
            sql.execute("INSERT INTO company (id, name, address, grace_days) VALUES (1, 'Bench Company', '1 Quay', 0)");
            for (YearMonth month = YearMonth.from(DATED);
                    !month.isAfter(YearMonth.from(CHECK_DATE));
                    month = month.plusMonths(1)) {
                sql.execute("INSERT INTO period (month, locked, version) VALUES ('" + month + "', 0, 0)");
            }
            sql.execute(
                    "INSERT INTO ledger_account (id, code, name, kind) VALUES (1, '1010', 'Cash', 'CASH'), (2, '2000', 'Payables', 'PAYABLES'),"
                            + " (3, '4900', 'Discounts', 'INCOME'), (4, '5000', 'Expense', 'EXPENSE')");
            sql.execute("INSERT INTO account_role VALUES ('PAYABLES', 'USD', 2), ('DISCOUNTS_TAKEN', '', 3)");
        }
        root.setAutoCommit(false);
        try (PreparedStatement vendor = root.prepareStatement(
                        "INSERT INTO vendor (id, number, name, vendor_group, priority, method, currency, terms_rule, terms_days,"
                                + " discount_rate, discount_days, version)"
                                + " VALUES (?, ?, ?, ?, ?, 'CHECK', 'USD', 'NET', 30, 0, 0, 0)");
                PreparedStatement place = root.prepareStatement(
                        "INSERT INTO remit_to (id, vendor_id, payee, address, postal_code, in_force)"
                                + " VALUES (?, ?, ?, ?, ?, TRUE)")) {
            for (int i = 1; i <= VENDORS; i++) {
                vendor.setLong(1, i);
                vendor.setString(2, "B" + i);
                vendor.setString(3, "Vendor " + Integer.toHexString(i * 7919 % 104_729) + " of Skerrow");
                vendor.setString(4, "Group " + i % 12);
                vendor.setInt(5, 1 + i % 9);
                vendor.addBatch();
                place.setLong(1, i);
                place.setLong(2, i);
                place.setString(3, "Vendor " + i);
                place.setString(4, i + " Slipway Road\nSkerrow");
                place.setString(5, "4" + i);
                place.addBatch();
                if (i % BLOCK == 0) {
                    vendor.executeBatch();
                    place.executeBatch();
                    root.commit();
                }
            }
        }
    }

    /** Throws away all invoices and loads {@code count} open ones, of which {@link #QUALIFYING} are due. */
    void invoices(int count) throws SQLException {
        root.setAutoCommit(true);
        try (Statement sql = root.createStatement()) {
            sql.execute("SET FOREIGN_KEY_CHECKS = 0");
            for (String table : new String[] {"reservation", "batch_out", "claim_line", "claim", "batch_edit"}) {
                sql.execute("DELETE FROM " + table);
            }
            sql.execute("TRUNCATE invoice");
            sql.execute("SET FOREIGN_KEY_CHECKS = 1");
        }
        next = FIRST_INVOICE;
        more(count, QUALIFYING);
    }

    /** Loads so many more, of which {@code qualifying} are due. */
    void more(int count, int qualifying) throws SQLException {
        root.setAutoCommit(false);
        int every = count / qualifying;
        try (PreparedStatement row = root.prepareStatement("""
                INSERT INTO invoice (id, vendor_id, remit_to_id, kind, reference, invoice_date, due_date, discount_date,
                  ledger_date, currency, amount_minor, discountable_minor, discount_rate, open_minor, discount_taken_minor,
                  payables_account_id, own_check, version, open_since)
                VALUES (?, ?, ?, 'INVOICE', ?, ?, ?, ?, ?, 'USD', ?, ?, ?, ?, 0, 2, 0, 0, ?)
                """)) {
            for (int i = 0; i < count; i++) {
                one(row, i, i % every == every / 2 ? i / every : -1);
                row.addBatch();
                if (i % BLOCK == BLOCK - 1) {
                    row.executeBatch();
                    root.commit();
                }
            }
            row.executeBatch();
            root.commit();
        }
        root.setAutoCommit(true);
        try (Statement sql = root.createStatement()) {
            sql.execute("ANALYZE TABLE invoice, vendor, remit_to, reservation, batch");
        }
    }

    /** @param qualifying its place among those that qualify; −1 when it does not */
    private void one(PreparedStatement row, int i, int qualifying) throws SQLException {
        long vendor = 1 + random.nextInt(VENDORS);
        LocalDate due = qualifying < 0
                ? DUE_BY.plusDays(1 + random.nextInt(300))
                : qualifying % 5 == 0 ? DUE_BY.plusDays(10) : DUE_BY.minusDays(random.nextInt(25));
        LocalDate discount = qualifying >= 0 && qualifying % 5 == 0
                ? CHECK_DATE.plusDays(1 + random.nextInt(12))
                : i % 3 == 0 ? NEXT_RUN.plusDays(random.nextInt(200)) : null;
        long amount = 1_000 + random.nextInt(900_000);
        row.setLong(1, next++);
        row.setLong(2, vendor);
        row.setLong(3, vendor);
        row.setString(4, "R-" + (next - FIRST_INVOICE - 1));
        row.setObject(5, DATED);
        row.setObject(6, due);
        row.setObject(7, discount);
        row.setObject(8, DATED);
        row.setLong(9, amount);
        row.setLong(10, amount);
        row.setBigDecimal(11, discount == null ? java.math.BigDecimal.ZERO : new java.math.BigDecimal("0.02"));
        row.setLong(12, amount);
        row.setObject(13, DATED);
    }
}
