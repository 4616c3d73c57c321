package leveltally.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import leveltally.server.printing.KeptTexts;
import leveltally.server.proof.Proof;
import org.junit.jupiter.api.Test;

/** A database as an earlier version left it comes over whole: what it said of money, numbers and the trail it still says. */
class MigrationTest {
    private static final String OPEN =
            "SELECT id, open_minor, discount_taken_minor, at_par_minor FROM invoice ORDER BY id";
    private static final String BALANCES =
            "SELECT e.month, l.account_id, l.currency, SUM(l.debit_minor), SUM(l.credit_minor)"
                    + " FROM journal_entry e JOIN journal_line l ON l.entry_id = e.id GROUP BY e.month, l.account_id, l.currency"
                    + " ORDER BY 1, 2, 3";
    private static final String HEAD = "SELECT sequence, hash FROM audit_head";
    private static final String EVENTS =
            "SELECT check_number_id, kind, amount_minor, event_date, payee, file_id, never_reported FROM bank_event"
                    + " ORDER BY id";
    private static final String BATCHES =
            "SELECT id, state, bank_account_id, method, check_date FROM batch ORDER BY id";

    /** When a check was a payment and its number's state was its own. */
    @Test
    void fromWhenANumberWasAPayment() throws SQLException {
        Path copy = Path.of("src/test/resources/before/numbers-were-payments.tgz");
        App.DATABASE.bringBack("earlier", copy);
        Map<String, List<String>> was = facts(
                "SELECT id, bank_account_id, number, payment_id, state, state_date, explanation FROM check_number ORDER BY id",
                "SELECT n.number, e.to_state, e.at, e.business_date, e.person_id, e.why FROM number_event e"
                        + " JOIN check_number n ON n.id = e.check_number_id WHERE e.to_state NOT IN ('TAKEN', 'PRINTED')"
                        + " ORDER BY 1, 2, 3");
        assertThat(was.get("numbers")).hasSizeGreaterThan(100);
        try (var running = App.launchOnDemo(App.DATABASE.url("earlier"), copy)) {
            assertThat(facts(
                            "SELECT n.id, s.bank_account_id, n.number, n.payment_id, n.state, n.state_date, n.explanation"
                                    + " FROM check_register n JOIN series_of_account s ON s.id = n.series_id ORDER BY n.id",
                            "SELECT n.number, x.to_state, x.at, x.business_date, x.person_id, x.why FROM ("
                                    + "SELECT check_number_id, to_state, at, business_date, person_id, why FROM number_event"
                                    + " WHERE to_state NOT IN ('TAKEN', 'PRINTED')"
                                    + " UNION ALL SELECT m.id, e.to_state, e.at, e.business_date, e.person_id, e.why"
                                    + " FROM payment_event e JOIN check_number m ON m.live_payment_id = e.payment_id"
                                    + " WHERE e.to_state <> 'PREPARED') x JOIN check_number n ON n.id = x.check_number_id"
                                    + " ORDER BY 1, 2, 3"))
                    .isEqualTo(was);
            assertThat(KeptTexts.areWhatTheClaimsSay(running)).isGreaterThan(100);
            assertThat(running.getBean(Proof.class).run().laws())
                    .allSatisfy(law -> assertThat(law.findings()).isEmpty());
        }
    }

    private static Map<String, List<String>> facts(String numbers, String lives) throws SQLException {
        Map<String, List<String>> facts = new TreeMap<>();
        try (Connection root = App.DATABASE.root("earlier")) {
            facts.put("open", rows(root, OPEN));
            facts.put("balances", rows(root, BALANCES));
            facts.put("head", rows(root, HEAD));
            facts.put("events", rows(root, EVENTS));
            facts.put("batches", rows(root, BATCHES));
            facts.put("numbers", rows(root, numbers));
            facts.put("lives", rows(root, lives));
        }
        return facts;
    }

    private static List<String> rows(Connection root, String sql) throws SQLException {
        List<String> found = new ArrayList<>();
        try (ResultSet rows = root.createStatement().executeQuery(sql)) {
            int columns = rows.getMetaData().getColumnCount();
            while (rows.next()) {
                StringBuilder row = new StringBuilder();
                for (int i = 1; i <= columns; i++) {
                    row.append(rows.getString(i)).append(' ');
                }
                found.add(row.toString());
            }
        }
        return found;
    }
}
