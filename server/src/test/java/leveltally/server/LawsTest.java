package leveltally.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import leveltally.core.batches.BatchId;
import leveltally.core.proof.Law;
import leveltally.server.batches.Withdrawing;
import leveltally.server.proof.Proof;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Breaks the data behind the application's back, law by law, and sees the proof find it; and tries the ways in front. */
class LawsTest {
    private static BatchId draft;

    @BeforeAll
    static void aDraftOfTwoPayments() {
        draft = App.draft(App.invoice("Bollard Foundry", "71.00"), App.invoice("Coaming Timber", "72.00"));
        isClean();
    }

    /** Every fault was mended, or one of them hid another. */
    @AfterAll
    static void everyFaultWasMended() {
        App.bean(Withdrawing.class).withdraw(App.ines(), draft, App.version(draft));
        isClean();
    }

    private static void isClean() {
        assertThat(proof().laws()).allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    private static Proof.Report proof() {
        return App.bean(Proof.class).run();
    }

    private static final String POSTED = "(SELECT MIN(id) FROM payment WHERE posted_entry_id IS NOT NULL)";
    private static final String CLEARED = "(SELECT MIN(n.id) FROM check_register n WHERE n.state = 'CLEARED')";
    private static final String VOIDED = "(SELECT MIN(n.id) FROM check_register n WHERE n.state = 'VOIDED')";
    private static final String PAID = "(SELECT id FROM (SELECT MIN(id) AS id FROM payment WHERE state = 'CLEARED') x)";
    private static final String FIRST =
            "(SELECT id FROM (SELECT MIN(id) AS id FROM check_number WHERE state = 'PRINTED') x)";
    private static final String DRAFT = "(SELECT id FROM (SELECT MAX(id) AS id FROM batch WHERE state = 'DRAFT') d)";
    private static final String UNDOING =
            "(SELECT id FROM (SELECT MIN(id) AS id FROM settlement WHERE reverses_id IS NOT NULL) u)";
    private static final String SETTLED =
            "(SELECT MIN(s.invoice_id) FROM settlement s WHERE s.kind = 'DISCOUNT' AND s.reverses_id IS NULL)";
    private static final String LOCK =
            "(SELECT id FROM (SELECT MIN(id) AS id FROM period_lock WHERE unlocked_at IS NULL) k)";

    /** A fault of one row in each query of the proof: the law, words of the finding, the fault, how it is mended. */
    static Stream<Arguments> breaches() {
        return Stream.of(
                change(
                        Law.L1,
                        "is off by",
                        "journal_line",
                        "debit_minor",
                        "debit_minor + 1",
                        "(SELECT id FROM (SELECT MIN(id)" + " AS id FROM journal_line WHERE debit_minor > 0) x)"),
                breach(
                        Law.L1,
                        "belongs to entry -5",
                        "INSERT INTO journal_line SELECT -5, -5, account_id, currency, debit_minor, credit_minor FROM journal_line"
                                + " WHERE account_id NOT IN (SELECT id FROM ledger_account WHERE kind = 'PAYABLES') LIMIT 1",
                        "DELETE FROM journal_line WHERE id = -5"),
                change(
                        Law.L2,
                        "is open at",
                        "invoice",
                        "open_minor",
                        "open_minor - 1",
                        "(SELECT id FROM (SELECT MIN(id) AS id FROM invoice WHERE open_minor > 0) x)"),
                change(
                        Law.L2,
                        "was open at",
                        "settlement",
                        "amount_minor",
                        "amount_minor + 10000000",
                        "(SELECT id FROM (SELECT MIN(id) AS id FROM settlement WHERE reverses_id IS NULL) x)"),
                change(Law.L2, "but settled on", "invoice", "ledger_date", "ledger_date + INTERVAL 9 MONTH", SETTLED),
                change(Law.L2, "of discount", "invoice", "discount_taken_minor", "discount_taken_minor + 1", SETTLED),
                change(Law.L2, "at par", "invoice", "at_par_minor", "at_par_minor + 1", SETTLED),
                change(Law.L2, "does not mirror", "settlement", "ledger_date", "'2020-01-01'", UNDOING),
                breach(
                        Law.L3,
                        "no trace of the numbers",
                        "UPDATE check_number SET number = number + 900000 WHERE id = " + CLEARED,
                        "UPDATE check_number SET number = number - 900000 WHERE number > 900000"),
                change(
                        Law.L3,
                        "the next number is",
                        "number_series",
                        "next_number",
                        "next_number + 1",
                        "(SELECT id FROM (SELECT id FROM series_of_account WHERE account_name = 'Operations' AND stock <> 'BY_HAND') x)"),
                change(Law.L3, "its history ends", "check_number", "state", "'SPOILED'", FIRST),
                change(Law.L3, "its history has no end", "check_number", "steps", "steps + 1", FIRST),
                breach(
                        Law.L3,
                        "went from nowhere to printed",
                        "UPDATE number_event SET to_state = 'PRINTED' WHERE step = 1 AND check_number_id = " + CLEARED,
                        "UPDATE number_event SET to_state = 'TAKEN' WHERE step = 1 AND check_number_id = " + CLEARED),
                change(Law.L3, "but its payment is missing", "check_number", "payment_id", "-payment_id", FIRST),
                change(Law.L3, "is stopped but its history ends cleared", "payment", "state", "'STOPPED'", PAID),
                change(Law.L3, "is cleared but its history has no end", "payment", "steps", "steps + 1", PAID),
                breach(
                        Law.L3,
                        "went from prepared to cleared",
                        "UPDATE payment_event SET to_state = 'CLEARED' WHERE step = 2 AND payment_id = " + PAID,
                        "UPDATE payment_event SET to_state = 'OUTSTANDING' WHERE step = 2 AND payment_id = " + PAID),
                change(Law.L3, "without its number", "check_number", "state", "'TAKEN'", FIRST),
                breach(
                        Law.L3,
                        "but the ledger does not have it",
                        "UPDATE payment SET version = version + 1000, state_why = posted_entry_id, posted_entry_id = NULL"
                                + " WHERE id = " + PAID,
                        "UPDATE payment SET posted_entry_id = state_why, state_why = '', version = version - 1000"
                                + " WHERE version > 999"),
                change(Law.L4, "its lines come to", "payment", "amount_minor", "amount_minor + 1", POSTED),
                change(
                        Law.L4,
                        "Claim",
                        "claim",
                        "amount_minor",
                        "amount_minor + 1",
                        "(SELECT id FROM (SELECT MIN(id) AS id" + " FROM claim) x)"),
                change(Law.L4, "its cash line", "payment", "amount_minor", "amount_minor + 2", POSTED),
                breach(
                        Law.L4,
                        "on its paper stands",
                        "UPDATE document_content SET content = JSON_SET(content, '$.amountMinor',"
                                + " JSON_VALUE(content, '$.amountMinor') + 1) ORDER BY document_id LIMIT 1",
                        "UPDATE document_content SET content = JSON_SET(content, '$.amountMinor',"
                                + " JSON_VALUE(content, '$.amountMinor') - 1) ORDER BY document_id LIMIT 1"),
                Arguments.of(
                        Law.L4,
                        "its accounts come to 0",
                        List.of(
                                "SET @line = (SELECT MAX(l.id) FROM claim_line l JOIN claim c ON c.id = l.claim_id"
                                        + " JOIN batch b ON b.id = c.batch_id AND b.state = 'DRAFT')",
                                "SET @item = (SELECT invoice_id FROM claim_line WHERE id = @line)",
                                "UPDATE claim_line SET kind = 'DIRECT', invoice_id = NULL WHERE id = @line"),
                        List.of("UPDATE claim_line SET kind = 'INVOICE', invoice_id = @item WHERE id = @line")),
                breach(
                        Law.L4,
                        "and nothing stands for it",
                        "UPDATE invoice SET ahead_line_id = -ahead_line_id WHERE ahead_line_id > 0 ORDER BY id LIMIT 1",
                        "UPDATE invoice SET ahead_line_id = -ahead_line_id WHERE ahead_line_id < 0"),
                breach(
                        Law.L4,
                        "stands though the payment is undone",
                        "UPDATE payment SET undone_entry_id = -1 WHERE claim_id = (SELECT MIN(claim_id) FROM claim_line"
                                + " WHERE kind = 'PREPAYMENT')",
                        "UPDATE payment SET undone_entry_id = NULL WHERE undone_entry_id = -1"),
                breach(
                        Law.L11,
                        ", prepayments ",
                        "UPDATE invoice SET amount_minor = amount_minor + 1, open_minor = open_minor + 1 WHERE kind = 'PREPAYMENT' ORDER BY id LIMIT 1",
                        "UPDATE invoice SET amount_minor = amount_minor - 1, open_minor = open_minor - 1 WHERE kind = 'PREPAYMENT' ORDER BY id LIMIT 1"),
                change(
                        Law.L4,
                        "shows",
                        "document",
                        "amount_minor",
                        "amount_minor + 1",
                        "(SELECT id FROM (SELECT MIN(id) AS id FROM document) x)"),
                breach(
                        Law.L4,
                        "which stands as well",
                        "UPDATE payment SET replaces_id = (SELECT id FROM (SELECT MAX(id) AS id FROM payment"
                                + " WHERE undone_entry_id IS NULL AND posted_entry_id IS NOT NULL) x) WHERE id = "
                                + POSTED,
                        "UPDATE payment SET replaces_id = NULL WHERE replaces_id IS NOT NULL"),
                Arguments.of(
                        Law.L4,
                        "undoes entry",
                        List.of(
                                "SET @undoing = (SELECT MIN(id) FROM journal_entry WHERE kind = 'VOID')",
                                "INSERT INTO undoing_choice SELECT -1, -1, payment_id, id, (SELECT MIN(id) FROM invoice),"
                                        + " (SELECT MIN(id) FROM ledger_account), (SELECT MAX(id) FROM ledger_account), 'USD', 5 FROM journal_entry WHERE id = @undoing"),
                        List.of("DELETE FROM undoing_choice WHERE id = -1")),
                Arguments.of(
                        Law.L7,
                        "without a second person",
                        List.of(
                                "SET @undoing = (SELECT MIN(id) FROM journal_entry WHERE kind = 'VOID')",
                                "INSERT INTO undoing_choice SELECT -1, -1, payment_id, id, (SELECT MIN(id) FROM invoice),"
                                        + " (SELECT MIN(id) FROM ledger_account), (SELECT MAX(id) FROM ledger_account), 'USD', 5 FROM journal_entry WHERE id = @undoing"),
                        List.of("DELETE FROM undoing_choice WHERE id = -1")),
                breach(
                        Law.L4,
                        "undoes entry",
                        "UPDATE journal_line SET account_id = -account_id WHERE id = (SELECT id FROM (SELECT MIN(l.id) AS id FROM"
                                + " journal_line l JOIN journal_entry e ON e.id = l.entry_id WHERE e.reverses_id IS NOT NULL) x)",
                        "UPDATE journal_line SET account_id = -account_id WHERE account_id < 0"),
                breach(
                        Law.L4,
                        "which undoes another",
                        "UPDATE journal_entry SET reverses_id = -reverses_id WHERE reverses_id IS NOT NULL AND payment_id IS NOT NULL"
                                + " ORDER BY id LIMIT 1",
                        "UPDATE journal_entry SET reverses_id = -reverses_id WHERE reverses_id < 0"),
                breach(
                        Law.L5,
                        "has nothing to hear",
                        "UPDATE bank_event SET check_number_id = -check_number_id WHERE check_number_id = " + CLEARED,
                        "UPDATE bank_event SET check_number_id = -check_number_id WHERE check_number_id < 0"),
                breach(
                        Law.L5,
                        "was told before its issue",
                        "UPDATE bank_event SET file_id = -file_id WHERE kind = 'ISSUE' AND check_number_id = (SELECT c FROM (SELECT"
                                + " MIN(check_number_id) AS c FROM bank_event WHERE kind = 'VOID' AND file_id IS NOT NULL) v)",
                        "UPDATE bank_event SET file_id = -file_id WHERE file_id < 0"),
                breach(
                        Law.L5,
                        "stands in 2 files",
                        "INSERT INTO bank_file_item (file_id, event_id, position) SELECT (SELECT MIN(id) FROM bank_file), MAX(event_id), 9999 FROM bank_file_item",
                        "DELETE FROM bank_file_item WHERE position = 9999"),
                breach(
                        Law.L3,
                        "is cleared, and no movement of the bank stands for it",
                        "UPDATE bank_match SET undone_on = on_day, undone_why = 'breach', undone_at = made_at, undone_by = made_by"
                                + " WHERE kind = 'PAYMENT' AND undone_on IS NULL ORDER BY id LIMIT 1",
                        "UPDATE bank_match SET undone_on = NULL, undone_why = '', undone_at = NULL, undone_by = NULL"
                                + " WHERE undone_why = 'breach'"),
                breach(
                        Law.L4,
                        "what stands for it comes to",
                        "UPDATE bank_movement SET open_minor = open_minor + 700000 ORDER BY id LIMIT 1",
                        "UPDATE bank_movement SET open_minor = open_minor - 700000 ORDER BY id LIMIT 1"),
                breach(
                        Law.L5,
                        "stands in a refused or unknown file",
                        "UPDATE bank_file_item SET event_id = -event_id WHERE event_id IS NOT NULL ORDER BY event_id LIMIT 1",
                        "UPDATE bank_file_item SET event_id = -event_id WHERE event_id < 0"),
                change(
                        Law.L5,
                        "is not what it was",
                        "bank_file",
                        "content_hash",
                        "REVERSE(content_hash)",
                        "(SELECT id FROM (SELECT MIN(id) AS id FROM bank_file) x)"),
                change(
                        Law.L5,
                        "its payment",
                        "bank_event",
                        "payee",
                        "CONCAT(payee, ' ')",
                        "(SELECT id FROM (SELECT MIN(id) AS id FROM bank_event) x)"),
                breach(
                        Law.L5,
                        ", record ",
                        "UPDATE payment SET payee = CONCAT('X', payee) WHERE id = (SELECT MIN(n.payment_id) FROM check_number n"
                                + " JOIN bank_event e ON e.check_number_id = n.id JOIN bank_file f ON f.id = e.file_id)",
                        "UPDATE payment SET payee = SUBSTRING(payee, 2) WHERE id = (SELECT MIN(n.payment_id) FROM check_number n"
                                + " JOIN bank_event e ON e.check_number_id = n.id JOIN bank_file f ON f.id = e.file_id)"),
                change(
                        Law.L6,
                        "is not what its digest says",
                        "claim",
                        "payee",
                        "CONCAT(payee, ' Ltd')",
                        "(SELECT claim_id FROM payment WHERE id = " + POSTED + ")"),
                breach(
                        Law.L6,
                        "approvals at its step",
                        "UPDATE approval SET outcome = 'X' WHERE outcome = 'APPROVED' AND batch_id = (SELECT MIN(batch_id) FROM"
                                + " payment) ORDER BY id LIMIT 1",
                        "UPDATE approval SET outcome = 'APPROVED' WHERE outcome = 'X'"),
                breach(
                        Law.L6,
                        "was never sent",
                        "UPDATE batch SET approval_round = approval_round + 900 WHERE id = (SELECT MIN(batch_id) FROM payment)",
                        "UPDATE batch SET approval_round = approval_round - 900 WHERE approval_round > 899"),
                breach(
                        Law.L7,
                        "which was prepared or changed by",
                        "INSERT INTO batch_hand SELECT batch_id, person_id FROM approval WHERE outcome = 'APPROVED' ORDER BY id LIMIT 1",
                        "DELETE h FROM batch_hand h JOIN approval a ON a.batch_id = h.batch_id AND a.person_id = h.person_id"),
                Arguments.of(
                        Law.L7,
                        "twice, in steps",
                        List.of(
                                "SELECT o.id, o.on_behalf_of, a.person_id INTO @row, @was, @first FROM approval a JOIN approval o"
                                        + " ON o.batch_id = a.batch_id AND o.round = a.round AND o.id > a.id"
                                        + " AND o.outcome = a.outcome WHERE a.outcome = 'APPROVED' ORDER BY o.id LIMIT 1",
                                "UPDATE approval SET on_behalf_of = @first WHERE id = @row"),
                        List.of("UPDATE approval SET on_behalf_of = @was WHERE id = @row")),
                Arguments.of(
                        Law.L7,
                        "after changing that vendor",
                        List.of(
                                "SELECT v.id, v.decided_by, v.decided_at, v.decided_on, a.person_id, a.at, a.business_date"
                                        + " INTO @row, @was, @was_at, @was_on, @who, @at, @day FROM approval a"
                                        + " JOIN approval_claim x ON x.approval_id = a.id JOIN claim c ON c.id = x.claim_id"
                                        + " JOIN vendor_change v ON v.vendor_id = c.vendor_id AND v.state = 'CONFIRMED'"
                                        + " WHERE a.outcome = 'APPROVED' ORDER BY a.id, v.id LIMIT 1",
                                "UPDATE vendor_change SET decided_by = @who, decided_at = @at - INTERVAL 1 SECOND,"
                                        + " decided_on = @day WHERE id = @row"),
                        List.of("UPDATE vendor_change SET decided_by = @was, decided_at = @was_at, decided_on = @was_on"
                                + " WHERE id = @row")),
                breach(
                        Law.L7,
                        "were given by one person alone",
                        "INSERT INTO person_change (id, person_id, what, roles, password_hash, proposed_by, proposed_at, state,"
                                + " decided_by) SELECT -7, id, 'ROLES', 'CLERK', '', id, NOW(6), 'CONFIRMED', id FROM person LIMIT 1",
                        "DELETE FROM person_change WHERE id = -7"),
                breach(
                        Law.L7,
                        "changed by one person alone",
                        "UPDATE vendor_change SET version = version + 1000, decided_why = decided_by, decided_by = NULL"
                                + " WHERE state = 'CONFIRMED' ORDER BY id LIMIT 1",
                        "UPDATE vendor_change SET decided_by = decided_why, decided_why = '', version = version - 1000 WHERE decided_by IS NULL"
                                + " AND version > 999"),
                change(
                        Law.L7,
                        "is not what two people agreed on",
                        "remit_to",
                        "address",
                        "CONCAT(address, ' ')",
                        "(SELECT remit_to_id FROM vendor_change WHERE state = 'CONFIRMED' AND remit_to_id IS NOT NULL LIMIT 1)"),
                breach(
                        Law.L7,
                        "made and confirmed by one person",
                        "UPDATE approval_policy SET made_by = confirmed_by + 0 * (@maker := made_by), made_at = made_at"
                                + " - INTERVAL 1 SECOND WHERE confirmed_by <> made_by ORDER BY id LIMIT 1",
                        "UPDATE approval_policy SET made_by = @maker, made_at = made_at + INTERVAL 1 SECOND"
                                + " WHERE confirmed_by = made_by ORDER BY id LIMIT 1"),
                breach(
                        Law.L8,
                        "at the lock and is",
                        "UPDATE period_total SET debit_minor = debit_minor + 1 WHERE debit_minor > 0 ORDER BY lock_id LIMIT 1",
                        "UPDATE period_total SET debit_minor = debit_minor - 1 WHERE debit_minor > 0 ORDER BY lock_id LIMIT 1"),
                breach(
                        Law.L8,
                        "had no line at the lock",
                        "UPDATE period_total SET account_id = -account_id WHERE debit_minor > 0 ORDER BY lock_id LIMIT 1",
                        "UPDATE period_total SET account_id = -account_id WHERE account_id < 0"),
                change(Law.L8, "while it was locked", "period_lock", "locked_at", "'2020-01-01'", LOCK),
                change(Law.L8, "settlements are dated in it", "period_lock", "settlements", "settlements - 1", LOCK),
                change(
                        Law.L8,
                        "its entry of",
                        "settlement",
                        "ledger_date",
                        "ledger_date + INTERVAL 1 DAY",
                        "(SELECT id FROM (SELECT MAX(id) AS id FROM settlement WHERE entry_id IS NOT NULL) x)"),
                change(Law.L9, "still reserved", "batch", "state", "'POSTED'", DRAFT),
                Arguments.of(
                        Law.L9,
                        "live claims",
                        List.of(
                                "SELECT l.id, l.invoice_id, l.reference, o.invoice_id, o.reference INTO @row, @was, @said, @other,"
                                        + " @reference FROM claim_line l JOIN claim c ON c.id = l.claim_id JOIN claim d"
                                        + " ON d.batch_id = c.batch_id AND d.id > c.id JOIN claim_line o ON o.claim_id = d.id"
                                        + " WHERE c.batch_id = " + DRAFT + " LIMIT 1",
                                "UPDATE claim_line SET invoice_id = @other, reference = @reference WHERE id = @row"),
                        List.of("UPDATE claim_line SET invoice_id = @was, reference = @said WHERE id = @row")),
                breach(
                        Law.L9,
                        "without being reserved",
                        "UPDATE reservation SET claim_id = -claim_id ORDER BY invoice_id LIMIT 1",
                        "UPDATE reservation SET claim_id = -claim_id WHERE claim_id < 0"),
                change(
                        Law.L10,
                        "100",
                        "audit_record",
                        "person_id",
                        "person_id + 1",
                        "(SELECT sequence FROM (SELECT 100 AS sequence) x)"),
                breach(
                        Law.L11,
                        "open invoices less credits",
                        "UPDATE invoice SET amount_minor = amount_minor + 5, open_minor = open_minor + 5 WHERE open_minor > 0"
                                + " ORDER BY id LIMIT 1",
                        "UPDATE invoice SET amount_minor = amount_minor - 5, open_minor = open_minor - 5 WHERE open_minor > 0"
                                + " ORDER BY id LIMIT 1"),
                change(
                        Law.L11,
                        "at the end of",
                        "invoice",
                        "ledger_date",
                        "ledger_date - INTERVAL 14 MONTH",
                        "(SELECT id FROM (SELECT MIN(id) AS id FROM invoice WHERE open_minor = amount_minor) x)"),
                breach(
                        Law.L12,
                        "is printed for a payment that goes another way",
                        "UPDATE batch SET method = 'CREDIT_TRANSFER' WHERE state = 'POSTED' ORDER BY id LIMIT 1",
                        "UPDATE batch SET method = 'CHECK' WHERE method = 'CREDIT_TRANSFER' AND way_id IN (SELECT id FROM way_to_pay WHERE method = 'CHECK')"),
                breach(
                        Law.L12,
                        "no bank took it",
                        "UPDATE bank_file SET state = 'MADE' WHERE purpose = 'ELECTRONIC' AND state = 'ACCEPTED' ORDER BY id LIMIT 1",
                        "UPDATE bank_file SET state = 'ACCEPTED' WHERE purpose = 'ELECTRONIC' AND answered_at IS NOT NULL AND state = 'MADE'"),
                breach(
                        Law.L12,
                        "its rows say",
                        "UPDATE electronic_item SET file_id = NULL ORDER BY payment_id LIMIT 1",
                        "UPDATE electronic_item i JOIN bank_file_item x ON x.payment_id = i.payment_id SET i.file_id = x.file_id WHERE i.file_id IS NULL"),
                breach(
                        Law.L4,
                        "a file of it says",
                        "UPDATE bank_file_item SET amount_minor = amount_minor + 1 WHERE payment_id IS NOT NULL ORDER BY file_id, position LIMIT 1",
                        "UPDATE bank_file_item x JOIN payment p ON p.id = x.payment_id SET x.amount_minor = p.amount_minor"));
    }

    private static Arguments breach(Law law, String finding, String breaking, String mending) {
        return Arguments.of(law, finding, List.of(breaking), List.of(mending));
    }

    /** One value of one row is another, and then what it was again. */
    private static Arguments change(Law law, String finding, String table, String column, String value, String row) {
        String key = table.equals("audit_record") ? "sequence" : "id";
        return Arguments.of(
                law,
                finding,
                List.of(
                        "SET @row = " + row,
                        "SET @was = (SELECT " + column + " FROM " + table + " WHERE " + key + " = @row)",
                        "UPDATE " + table + " SET " + column + " = " + value + " WHERE " + key + " = @row"),
                List.of("UPDATE " + table + " SET " + column + " = @was WHERE " + key + " = @row"));
    }

    @Nested
    @TestInstance(TestInstance.Lifecycle.PER_CLASS)
    class TheProof {
        private BehindItsBack root;

        @BeforeAll
        void pastTheTriggers() throws SQLException {
            root = new BehindItsBack();
        }

        @AfterAll
        void theyStandAgain() throws SQLException {
            root.close();
        }

        @ParameterizedTest(name = "{0} {1}")
        @MethodSource("leveltally.server.LawsTest#breaches")
        void findsABreach(Law law, String finding, List<String> breaking, List<String> mending) throws SQLException {
            try {
                assertThat(root.run(breaking)).isEqualTo(1);
                assertThat(proof().laws())
                        .filteredOn(checked -> checked.law() == law)
                        .flatExtracting(Proof.Checked::findings)
                        .anyMatch(words -> String.valueOf(words).contains(finding));
            } finally {
                root.run(mending);
            }
        }
    }

    /** Root's way into the data, past keys and triggers, which stand again afterwards. */
    private static final class BehindItsBack implements AutoCloseable {
        private final Connection root = App.DATABASE.root("leveltally");
        private final Map<String, String> triggers = new LinkedHashMap<>();

        BehindItsBack() throws SQLException {
            List<String> names = new ArrayList<>();
            try (ResultSet rows = root.createStatement().executeQuery("SHOW TRIGGERS")) {
                while (rows.next()) {
                    names.add(rows.getString(1));
                }
            }
            for (String name : names) {
                try (ResultSet rows = root.createStatement().executeQuery("SHOW CREATE TRIGGER " + name)) {
                    rows.next();
                    triggers.put(name, rows.getString(3));
                }
                root.createStatement().execute("DROP TRIGGER " + name);
            }
            root.createStatement().execute("SET foreign_key_checks = 0, check_constraint_checks = 0");
        }

        /** @return how many rows the last statement changed */
        int run(List<String> statements) throws SQLException {
            int changed = 0;
            for (String sql : statements) {
                try (Statement statement = root.createStatement()) {
                    statement.execute(sql);
                    changed = statement.getUpdateCount();
                }
            }
            return changed;
        }

        @Override
        public void close() throws SQLException {
            try (root) {
                for (String trigger : triggers.values()) {
                    root.createStatement().execute(trigger);
                }
            }
        }
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
                "DELETE FROM payment_event",
                "UPDATE payment_event SET to_state = 'CLEARED'",
                "UPDATE invoice SET open_minor = 0",
                "DELETE FROM paper_layout",
                "UPDATE paper_layout SET from_day = '2020-01-01'",
                "DELETE FROM document_content",
                "DROP TABLE audit_record"
            })
    void theApplicationMayNotChangeFacts(String sql) throws SQLException {
        try (Connection application = App.DATABASE.application()) {
            assertThatThrownBy(() -> application.createStatement().execute(sql))
                    .isInstanceOf(SQLException.class)
                    .hasMessageContaining("denied");
        }
    }

    private static void runAll(Connection connection, String statements) throws SQLException {
        for (String sql : statements.split(";")) {
            connection.createStatement().execute(sql);
        }
    }

    /** What the database itself refuses to the application's own account, and in which words. */
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(delimiter = '|', textBlock = """
            the period is locked | INSERT INTO journal_entry (id, ledger_date, month, kind, text, made_at, made_by) SELECT -1, '2026-01-15', '2026-01', 'INVOICE', 'x', NOW(), MIN(id) FROM person
            in the month of its date | INSERT INTO journal_entry (id, ledger_date, month, kind, text, made_at, made_by) SELECT -1, '2026-01-15', '2026-11', 'INVOICE', 'x', NOW(), MIN(id) FROM person
            an entry has lines, and they balance | INSERT INTO journal_entry (id, ledger_date, month, kind, text, made_at, made_by) SELECT -1, '2026-11-12', '2026-11', 'INVOICE', 'x', NOW(), MIN(id) FROM person
            an entry stands as it was written | INSERT INTO journal_line SELECT -1, entry_id, account_id, currency, debit_minor, credit_minor FROM journal_line LIMIT 1
            Duplicate entry | INSERT INTO check_number (id, series_id, number, state, origin, explanation, state_date, steps, version) SELECT -1, series_id, number, 'TAKEN', 'PRINTED_HERE', '', state_date, 0, 0 FROM check_number LIMIT 1
            numbers of a series go on only | UPDATE number_series SET next_number = next_number - 1 LIMIT 1
            Duplicate entry | INSERT INTO reservation SELECT invoice_id, batch_id, claim_id FROM reservation LIMIT 1
            reserved by another batch | SET @i = (SELECT MIN(r.invoice_id) FROM reservation r JOIN invoice i ON i.id = r.invoice_id WHERE i.currency = 'USD'); INSERT INTO settlement (id, invoice_id, kind, currency, amount_minor, ledger_date) VALUES (-1, @i, 'CASH', 'USD', 1, '2026-11-12')
            l2_open_within | SET @i = (SELECT i.id FROM invoice i LEFT JOIN reservation r ON r.invoice_id = i.id WHERE i.open_minor > 0 AND i.currency = 'USD' AND r.invoice_id IS NULL LIMIT 1); SET @o = (SELECT open_minor FROM invoice WHERE id = @i); INSERT INTO settlement (id, invoice_id, kind, currency, amount_minor, ledger_date) VALUES (-1, @i, 'CASH', 'USD', @o + 1, '2026-11-12')
            the period is locked | SET @s = (SELECT s.id FROM settlement s LEFT JOIN settlement r ON r.reverses_id = s.id WHERE s.reverses_id IS NULL AND r.id IS NULL AND s.ledger_date < '2026-01-31' LIMIT 1); INSERT INTO settlement (id, invoice_id, kind, currency, amount_minor, ledger_date, reverses_id) SELECT -1, invoice_id, kind, currency, -amount_minor, '2026-01-31', id FROM settlement WHERE id = @s
            before its own ledger date | SET @i = (SELECT i.id FROM invoice i LEFT JOIN reservation r ON r.invoice_id = i.id WHERE i.open_minor > 0 AND i.currency = 'USD' AND r.invoice_id IS NULL LIMIT 1); SET @d = (SELECT ledger_date FROM invoice WHERE id = @i); INSERT INTO settlement (id, invoice_id, kind, currency, amount_minor, ledger_date) VALUES (-1, @i, 'CASH', 'USD', 1, @d - INTERVAL 1 DAY)
            undoing mirrors its original | INSERT INTO settlement (id, invoice_id, kind, currency, amount_minor, ledger_date, reverses_id) SELECT -1, s.invoice_id, s.kind, s.currency, 1 - s.amount_minor, '2026-11-12', s.id FROM settlement s LEFT JOIN settlement r ON r.reverses_id = s.id WHERE s.reverses_id IS NULL AND r.id IS NULL AND s.amount_minor > 1 LIMIT 1
            of its item's currency | SET @i = (SELECT MIN(id) FROM invoice WHERE currency = 'USD'); INSERT INTO settlement (id, invoice_id, kind, currency, amount_minor, ledger_date) VALUES (-1, @i, 'CASH', 'XYZ', 1, '2026-11-12')
            L6 | INSERT INTO payment (id, batch_id, claim_id, bank_account_id, vendor_id, payee, currency, amount_minor, check_date, ledger_date, state_date, version) SELECT -1, c.batch_id, c.id, b.bank_account_id, c.vendor_id, c.payee, c.currency, c.amount_minor, b.check_date, b.ledger_date, b.check_date, 0 FROM claim c JOIN batch b ON b.id = c.batch_id WHERE b.state = 'DRAFT' LIMIT 1; INSERT INTO check_number (id, series_id, number, state, origin, payment_id, explanation, state_date, steps, version) SELECT -1, s.id, 999999, 'TAKEN', 'PRINTED_HERE', p.id, '', p.check_date, 0, 0 FROM payment p JOIN batch b ON b.id = p.batch_id JOIN number_series s ON s.way_id = b.way_id WHERE p.id = -1
            goes another way | INSERT INTO check_number (id, series_id, number, state, origin, payment_id, explanation, state_date, steps, version) SELECT -1, s.id, 999999, 'TAKEN', 'PRINTED_HERE', p.id, '', p.check_date, 0, 0 FROM payment p JOIN batch b ON b.id = p.batch_id JOIN number_series s ON s.way_id <> b.way_id LIMIT 1
            goes another way | SET @p = (SELECT MIN(id) FROM payment); INSERT INTO check_number (id, series_id, number, state, origin, explanation, state_date, steps, version) SELECT -1, s.id, 999999, 'UNACCOUNTED', 'PRINTED_HERE', '', p.check_date, 0, 0 FROM payment p JOIN batch b ON b.id = p.batch_id JOIN number_series s ON s.way_id <> b.way_id WHERE p.id = @p LIMIT 1; UPDATE check_number SET state = 'TAKEN', payment_id = @p WHERE id = -1
            what carries a payment stands | UPDATE way_to_pay SET method = 'CREDIT_TRANSFER' WHERE method = 'CHECK'
            its days stand | UPDATE batch b JOIN way_to_pay w ON w.id <> b.way_id SET b.way_id = w.id
            way_of_its_account | INSERT INTO batch (id, name, note, purpose, bank_account_id, way_id, method, check_date, ledger_date, state, approval_round, prepared_by, prepared_at, changed_by, changed_at, changed_what, version) SELECT -1, '', '', 'RUN', b.bank_account_id, w.id, w.method, check_date, ledger_date, 'DRAFT', 0, prepared_by, prepared_at, changed_by, changed_at, '', 0 FROM batch b JOIN way_to_pay w ON w.bank_account_id <> b.bank_account_id LIMIT 1
            what they prepared or changed | INSERT INTO approval SELECT -1, batch_id, 9, 1, person_id, 'APPROVED', '', NOW(), person_id, '2026-11-12' FROM batch_hand LIMIT 1
            ahead_by_its_line | INSERT INTO invoice (id, vendor_id, remit_to_id, kind, reference, invoice_date, due_date, ledger_date, currency, amount_minor, discountable_minor, discount_rate, open_minor, discount_taken_minor, payables_account_id, own_check, version, open_since) SELECT -1, vendor_id, remit_to_id, 'PREPAYMENT', 'x', invoice_date, due_date, ledger_date, currency, amount_minor, 0, 0, amount_minor, 0, payables_account_id, 0, 0, ledger_date FROM invoice WHERE kind = 'INVOICE' AND cancelled_on IS NULL LIMIT 1
            what a posted payment paid ahead | INSERT INTO invoice (id, vendor_id, remit_to_id, kind, reference, invoice_date, due_date, ledger_date, currency, amount_minor, discountable_minor, discount_rate, open_minor, discount_taken_minor, payables_account_id, own_check, version, open_since, ahead_line_id) SELECT -1, vendor_id, remit_to_id, 'PREPAYMENT', 'x', invoice_date, due_date, ledger_date, currency, amount_minor, 0, 0, amount_minor, 0, payables_account_id, 0, 0, ledger_date, (SELECT MIN(id) FROM claim_line) FROM invoice WHERE kind = 'INVOICE' AND cancelled_on IS NULL LIMIT 1
            its lines stand | UPDATE claim_line SET cash_minor = cash_minor + 1, gross_minor = gross_minor + 1 WHERE claim_id = (SELECT MIN(claim_id) FROM payment)
            its lines stand | INSERT INTO claim_line (id, claim_id, kind, invoice_id, reference, invoice_date, currency, gross_minor, discount_minor, credit_minor, cash_minor, part, version) SELECT -1, (SELECT MIN(claim_id) FROM payment), kind, invoice_id, reference, invoice_date, currency, gross_minor, discount_minor, credit_minor, cash_minor, part, 0 FROM claim_line ORDER BY id DESC LIMIT 1
            it stands | UPDATE claim SET amount_minor = amount_minor + 1 WHERE id = (SELECT MIN(claim_id) FROM payment)
            denied | UPDATE payment SET amount_minor = amount_minor + 1
            what became of a payment stands | UPDATE payment SET posted_entry_id = NULL WHERE posted_entry_id IS NOT NULL
            the bank could hear of | INSERT INTO bank_event (id, bank_account_id, check_number_id, batch_id, kind, currency, amount_minor, event_date, payee, version) SELECT -1, p.bank_account_id, n.id, p.batch_id, 'VOID', p.currency, p.amount_minor, p.check_date, p.payee, 0 FROM check_number n JOIN payment p ON p.id = n.payment_id WHERE n.state = 'SPOILED' LIMIT 1
            no item of such a file | INSERT INTO bank_file_item (file_id, payment_id, position) SELECT MIN(f.id), (SELECT MIN(id) FROM payment), 99999 FROM bank_file f
            stands in no file | INSERT INTO bank_file_item (file_id, payment_id, position, amount_minor) SELECT f.id, (SELECT MIN(id) FROM payment), 999, 1 FROM bank_file f WHERE f.purpose = 'ELECTRONIC' LIMIT 1
            its days stand | UPDATE batch SET purpose = 'OUTSIDE' LIMIT 1
            its days stand | UPDATE batch SET ledger_date = ledger_date + INTERVAL 1 DAY WHERE id = (SELECT MIN(batch_id) FROM payment)
            denied | UPDATE check_number SET number = number + 1
            denied | UPDATE document SET amount_minor = 1
            denied | UPDATE document_content SET content = '{}'
            denied | UPDATE bank_event SET payee = 'x'
            denied | UPDATE bank_file SET bytes = 1
            denied | UPDATE bank_file_part SET content = 'x'
            a file never changes | INSERT INTO bank_file_part SELECT file_id, 2, 'more' FROM bank_file_part WHERE position = 1 LIMIT 1
            denied | UPDATE bank_movement SET amount_minor = 1
            denied | UPDATE bank_movement SET open_minor = 0
            denied | UPDATE bank_match SET amount_minor = 1
            denied | DELETE FROM bank_match
            denied | UPDATE reconciliation SET ledger_minor = bank_minor
            another amount than the payment | INSERT INTO bank_match (id, movement_id, bank_account_id, kind, payment_id, amount_minor, on_day, answer, why, made_at, made_by) SELECT -1, movement_id, bank_account_id, 'PAYMENT', payment_id, amount_minor - 1, on_day, '', '', made_at, made_by FROM bank_match WHERE kind = 'PAYMENT' AND undone_on IS NULL LIMIT 1
            standing_payment_id | INSERT INTO bank_match (id, movement_id, bank_account_id, kind, payment_id, amount_minor, on_day, answer, why, made_at, made_by) SELECT -1, movement_id, bank_account_id, 'PAYMENT', payment_id, amount_minor, on_day, '', '', made_at, made_by FROM bank_match WHERE kind = 'PAYMENT' AND undone_on IS NULL LIMIT 1
            explained_to_the_cent | INSERT INTO reconciliation SELECT -1, MIN(a.id), '2026-11-12', 'USD', 1, 0, 0, 0, 2, '{}', '', '', NOW(), (SELECT MIN(id) FROM person) FROM bank_account a
            statement_adds_up | INSERT INTO bank_report SELECT -1, bank_account_id, kind, format, 'x', NULL, NULL, number, from_day, to_day, currency, opening_minor, closing_minor + 1, movements, out_minor, in_minor, '', 9999, read_at, read_by FROM bank_report WHERE place = 1 LIMIT 1
            read_once | INSERT INTO bank_report SELECT -1, bank_account_id, kind, format, 'x', NULL, content_hash, number, from_day, to_day, currency, opening_minor, closing_minor, movements, out_minor, in_minor, '', 9999, read_at, read_by FROM bank_report WHERE place = 1 LIMIT 1
            a file that is being made | UPDATE bank_event SET file_id = (SELECT MIN(f.id) FROM bank_file f WHERE f.state = 'ACCEPTED'), version = version + 1 WHERE file_id IS NULL LIMIT 1
            denied | UPDATE period_lock SET locked_at = NOW()
            change by two people | UPDATE remit_to SET bank_details_sealed = 'x' LIMIT 1
            change by two people | UPDATE remit_to SET payee = 'x' LIMIT 1
            begins as a proposal | INSERT INTO vendor_change (id, vendor_id, remit_to_id, what, before_payee, before_address, before_postal_code, before_bank_key, before_bank_mask, after_payee, after_address, after_postal_code, after_bank_key, after_bank_mask, why, proposed_by, proposed_at, proposed_on, state, decided_by, decided_why, version) SELECT -1, vendor_id, remit_to_id, what, '', '', '', '', '', '', '', '', '', '', '', proposed_by, NOW(), proposed_on, 'CONFIRMED', decided_by, '', 0 FROM vendor_change WHERE state = 'CONFIRMED' LIMIT 1
            begins as a proposal | INSERT INTO person_change (id, person_id, what, roles, password_hash, proposed_by, proposed_at, state) SELECT -1, id, 'ROLES', 'CONTROLLER', '', id, NOW(), 'CONFIRMED' FROM person LIMIT 1
            routes begin as a proposal | INSERT INTO approval_policy SELECT * FROM approval_policy WHERE confirmed_by IS NOT NULL LIMIT 1
            confirmed once, by a second person | UPDATE approval_policy SET confirmed_by = made_by
            """)
    void theDatabaseHoldsTheLawItself(String words, String sql) throws SQLException {
        try (Connection application = App.DATABASE.application()) {
            application.setAutoCommit(false);
            assertThatThrownBy(() -> runAll(application, sql))
                    .isInstanceOf(SQLException.class)
                    .hasMessageContaining(words);
            application.rollback();
        }
    }
}
