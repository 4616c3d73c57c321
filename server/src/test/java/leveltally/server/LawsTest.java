package leveltally.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.stream.Stream;
import leveltally.core.proof.Law;
import leveltally.server.proof.Proof;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Breaks the data behind the application's back, law by law, and sees the proof find it; and tries the ways in front. */
class LawsTest {
    @BeforeAll
    static void demoIsClean() {
        assertThat(proof().laws()).allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    private static Proof.Report proof() {
        return App.bean(Proof.class).run();
    }

    private static final String CLEARED = "(SELECT MIN(id) FROM check_number WHERE state = 'CLEARED')";

    static Stream<Arguments> breaches() {
        return Stream.of(
                breach(
                        Law.L1,
                        "UPDATE journal_line SET debit_minor = debit_minor + 1 WHERE debit_minor > 0 ORDER BY id LIMIT 1",
                        "UPDATE journal_line SET debit_minor = debit_minor - 1 WHERE debit_minor > 0 ORDER BY id LIMIT 1"),
                breach(
                        Law.L2,
                        "UPDATE invoice SET open_minor = open_minor + 1 WHERE open_minor = 0 ORDER BY id LIMIT 1",
                        "UPDATE invoice SET open_minor = 0 WHERE open_minor = 1 ORDER BY id LIMIT 1"),
                breach(
                        Law.L3,
                        "UPDATE bank_account SET next_number = next_number + 1 WHERE name = 'Operations'",
                        "UPDATE bank_account SET next_number = next_number - 1 WHERE name = 'Operations'"),
                breach(
                        Law.L4,
                        "UPDATE document SET amount_minor = amount_minor + 1 ORDER BY id LIMIT 1",
                        "UPDATE document SET amount_minor = amount_minor - 1 ORDER BY id LIMIT 1"),
                breach(
                        Law.L5,
                        "UPDATE bank_event SET kind = 'LOST' WHERE check_number_id = " + CLEARED,
                        "UPDATE bank_event SET kind = 'ISSUE' WHERE check_number_id = " + CLEARED),
                breach(
                        Law.L6,
                        "UPDATE claim SET payee = CONCAT(payee, ' Ltd') ORDER BY id LIMIT 1",
                        "UPDATE claim SET payee = LEFT(payee, CHAR_LENGTH(payee) - 4) ORDER BY id LIMIT 1"),
                breach(
                        Law.L7,
                        "INSERT INTO batch_hand SELECT batch_id, person_id FROM approval WHERE outcome = 'APPROVED' ORDER BY id LIMIT 1",
                        "DELETE h FROM batch_hand h JOIN approval a ON a.batch_id = h.batch_id AND a.person_id = h.person_id"),
                breach(
                        Law.L8,
                        "UPDATE period_total SET debit_minor = debit_minor + 1 WHERE debit_minor > 0 ORDER BY lock_id LIMIT 1",
                        "UPDATE period_total SET debit_minor = debit_minor - 1 WHERE debit_minor > 0 ORDER BY lock_id LIMIT 1"),
                breach(
                        Law.L9,
                        "UPDATE batch SET state = 'POSTED' WHERE state = 'DRAFT' ORDER BY id LIMIT 1",
                        "UPDATE batch SET state = 'DRAFT' WHERE id = (SELECT MIN(batch_id) FROM reservation)"),
                breach(
                        Law.L10,
                        "UPDATE audit_record SET person_id = person_id + 1 WHERE sequence = 100",
                        "UPDATE audit_record SET person_id = person_id - 1 WHERE sequence = 100"),
                breach(
                        Law.L11,
                        "UPDATE invoice SET amount_minor = amount_minor + 5, open_minor = open_minor + 5 WHERE open_minor > 0"
                                + " ORDER BY id LIMIT 1",
                        "UPDATE invoice SET amount_minor = amount_minor - 5, open_minor = open_minor - 5 WHERE open_minor > 0"
                                + " ORDER BY id LIMIT 1"),
                breach(
                        Law.L12,
                        "UPDATE batch SET method = 'CREDIT_TRANSFER' WHERE state = 'POSTED' ORDER BY id LIMIT 1",
                        "UPDATE batch SET method = 'CHECK' WHERE state = 'POSTED' ORDER BY id LIMIT 1"));
    }

    private static Arguments breach(Law law, String breaking, String mending) {
        return Arguments.of(law, breaking, mending);
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("breaches")
    void theProofFindsABreach(Law law, String breaking, String mending) throws SQLException {
        try (Connection root = App.DATABASE.root("leveltally")) {
            assertThat(root.createStatement().executeUpdate(breaking)).isEqualTo(1);
            try {
                assertThat(proof().laws())
                        .filteredOn(checked -> checked.law() == law)
                        .singleElement()
                        .satisfies(checked -> assertThat(checked.findings()).isNotEmpty());
            } finally {
                root.createStatement().executeUpdate(mending);
            }
        }
        assertThat(proof().isClean()).isTrue();
    }

    @Test
    void theProofFindsACutOffEnd() throws SQLException {
        try (Connection root = App.DATABASE.root("leveltally")) {
            root.createStatement()
                    .execute(
                            "CREATE TEMPORARY TABLE kept AS SELECT * FROM audit_record ORDER BY sequence DESC LIMIT 1");
            root.createStatement().execute("DELETE FROM audit_record ORDER BY sequence DESC LIMIT 1");
            assertThat(proof().laws())
                    .filteredOn(checked -> checked.law() == Law.L10)
                    .singleElement()
                    .satisfies(checked -> assertThat(checked.findings()).isNotEmpty());
            root.createStatement().execute("INSERT INTO audit_record SELECT * FROM kept");
        }
        assertThat(proof().isClean()).isTrue();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "UPDATE journal_line SET debit_minor = 1",
                "DELETE FROM journal_entry",
                "UPDATE settlement SET amount_minor = 1",
                "DELETE FROM settlement",
                "UPDATE audit_record SET deed = 'x'",
                "DELETE FROM audit_record",
                "UPDATE approval SET outcome = 'APPROVED'",
                "DELETE FROM check_number",
                "DELETE FROM number_event",
                "UPDATE invoice SET open_minor = 0",
                "DROP TABLE audit_record"
            })
    void theApplicationMayNotChangeFacts(String sql) throws SQLException {
        try (Connection application = App.DATABASE.application()) {
            assertThatThrownBy(() -> application.createStatement().execute(sql))
                    .isInstanceOf(SQLException.class)
                    .hasMessageContaining("denied");
        }
    }

    /** What the database itself refuses, even to the application's own account. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                // L8: a locked month
                "INSERT INTO journal_entry (id, ledger_date, month, kind, text, made_at, made_by)"
                        + " SELECT -1, '2026-01-15', '2026-01', 'INVOICE', 'x', NOW(), MIN(id) FROM person",
                // L3: a number twice
                "INSERT INTO check_number (id, bank_account_id, prefix, stock, number, state, origin, explanation, state_date, steps,"
                        + " version) SELECT -1, bank_account_id, prefix, stock, number, 'TAKEN', 'PRINTED_HERE', '', state_date, 0, 0"
                        + " FROM check_number LIMIT 1",
                // L9: an invoice reserved twice
                "INSERT INTO reservation SELECT invoice_id, batch_id, claim_id FROM reservation LIMIT 1",
                // L9: settled elsewhere while reserved
                "INSERT INTO settlement (id, invoice_id, kind, currency, amount_minor, ledger_date)"
                        + " SELECT -1, invoice_id, 'CASH', 'USD', 1, '2026-11-12' FROM reservation LIMIT 1",
                // L2: more than is open
                "INSERT INTO settlement (id, invoice_id, kind, currency, amount_minor, ledger_date) SELECT -1, i.id, 'CASH', 'USD',"
                        + " i.open_minor + 1, '2026-11-12' FROM invoice i LEFT JOIN reservation r ON r.invoice_id = i.id"
                        + " WHERE r.invoice_id IS NULL LIMIT 1",
                // L6: a payment nobody approved
                "INSERT INTO payment (id, batch_id, claim_id, bank_account_id, vendor_id, payee, currency, amount_minor, check_date,"
                        + " ledger_date, version) SELECT -1, c.batch_id, c.id, b.bank_account_id, c.vendor_id, c.payee, c.currency,"
                        + " c.amount_minor, b.check_date, b.ledger_date, 0 FROM claim c JOIN batch b ON b.id = c.batch_id"
                        + " WHERE b.state = 'DRAFT' LIMIT 1",
                // L7: approved by whoever prepared it
                "INSERT INTO approval SELECT -1, batch_id, 9, 1, person_id, 'APPROVED', '', NOW(), person_id, '2026-11-12'"
                        + " FROM batch_hand LIMIT 1",
                // L4: a line changed after its check has a number
                "UPDATE claim_line SET cash_minor = cash_minor + 1, gross_minor = gross_minor + 1 WHERE claim_id ="
                        + " (SELECT MIN(claim_id) FROM payment)"
            })
    void theDatabaseHoldsTheLawItself(String sql) throws SQLException {
        try (Connection application = App.DATABASE.application()) {
            assertThatThrownBy(() -> application.createStatement().executeUpdate(sql))
                    .isInstanceOf(SQLException.class);
        }
        assertThat(proof().isClean()).isTrue();
    }
}
