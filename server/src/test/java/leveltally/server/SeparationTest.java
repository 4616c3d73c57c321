package leveltally.server;

import static leveltally.server.App.aldo;
import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.invoice;
import static leveltally.server.App.maren;
import static leveltally.server.App.ruth;
import static leveltally.server.App.version;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.List;
import leveltally.core.batches.BatchId;
import leveltally.core.proof.Law;
import leveltally.server.approval.Approvals;
import leveltally.server.approval.Sending;
import leveltally.server.batches.Withdrawing;
import leveltally.server.proof.Proof;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Laws L6 and L7 held by the database itself against the application's own account, and found by the proof behind it. */
class SeparationTest {
    private final Approvals approvals = bean(Approvals.class);
    private final Sending sending = bean(Sending.class);
    private BatchId batch;

    /** A batch on a route of two steps, with its first approval by Maren. */
    @BeforeEach
    void halfWay() {
        batch = App.draft(invoice("Coaming Timber", "12050.31"));
        sending.send(ines(), batch, version(batch));
        approvals.approve(maren(), batch, approvals.seen(batch));
    }

    @AfterEach
    void lawful() {
        bean(Withdrawing.class).withdraw(ines(), batch, version(batch));
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    private String approval(int step, long by, long of) {
        return "INSERT INTO approval (id, batch_id, round, step, person_id, on_behalf_of, outcome, reason, at,"
                + " business_date) VALUES (-7, " + batch.value() + ", 0, " + step + ", " + by + ", " + of
                + ", 'APPROVED', '', NOW(), '2026-11-12')";
    }

    private static long person(String signIn) {
        return App.number("SELECT id FROM person WHERE sign_in = ?", signIn);
    }

    @ParameterizedTest(name = "{0} for {1}")
    @CsvSource({
        "maren, maren, two steps",
        "aldo, maren, two steps",
        "maren, aldo, two steps",
        "ines, ines, what they prepared",
        "aldo, ines, what they prepared",
        "ines, aldo, what they prepared"
    })
    void theDatabaseRefusesASecondHand(String by, String of, String words) throws SQLException {
        try (Connection application = App.DATABASE.application()) {
            application.setAutoCommit(false);
            assertThatThrownBy(() -> application.createStatement().executeUpdate(approval(2, person(by), person(of))))
                    .hasMessageContaining(words);
            application.rollback();
        }
    }

    @Test
    void theDatabaseTakesAnotherPersonButNoNumberAndNoPostingBeforeEveryStepIsDone() throws SQLException {
        String payment = "INSERT INTO payment (id, batch_id, claim_id, bank_account_id, vendor_id, payee, currency,"
                + " amount_minor, check_date, ledger_date, state_date, version) SELECT -7, c.batch_id, c.id,"
                + " b.bank_account_id, c.vendor_id, c.payee, c.currency, c.amount_minor, b.check_date, b.ledger_date,"
                + " b.check_date, 0 FROM claim c JOIN batch b ON b.id = c.batch_id WHERE b.id = " + batch.value();
        String number = "INSERT INTO check_number (id, series_id, number, state, origin, payment_id,"
                + " explanation, state_date, steps, version) SELECT -7, s.id, 999999, 'TAKEN',"
                + " 'PRINTED_HERE', -7, '', b.check_date, 0, 0 FROM batch b JOIN number_series s ON s.way_id = b.way_id"
                + " WHERE b.id = " + batch.value();
        String posting =
                "UPDATE payment SET state = 'OUTSTANDING', posted_entry_id = (SELECT MIN(id) FROM journal_entry"
                        + " WHERE kind = 'INVOICE') WHERE id = -7";
        String covering =
                "INSERT INTO approval_claim SELECT -7, id, digest FROM claim WHERE batch_id = " + batch.value();
        try (Connection application = App.DATABASE.application()) {
            application.setAutoCommit(false);
            // written down it may be; it leaves only once it is approved
            assertThat(application.createStatement().executeUpdate(payment)).isOne();
            mustBeApproved(application, number, posting);
            application.createStatement().executeUpdate(approval(2, person("aldo"), person("aldo")));
            // an approval of the step that does not cover this claim is none
            mustBeApproved(application, number, posting);
            application.createStatement().executeUpdate(covering);
            assertThat(application.createStatement().executeUpdate(number)).isOne();
            assertThat(application.createStatement().executeUpdate(posting)).isOne();
            application.rollback();
        }
    }

    private static void mustBeApproved(Connection application, String... leaving) {
        for (String sql : leaving) {
            assertThatThrownBy(() -> application.createStatement().executeUpdate(sql))
                    .hasMessageContaining("not approved as it stands");
        }
    }

    /** What the proof finds when somebody went behind the application and its triggers. */
    @Test
    void theProofFindsWhatTriggersWouldHaveRefused() throws SQLException {
        approvals.approve(aldo(), batch, approvals.seen(batch));
        String second = "UPDATE approval SET %s WHERE batch_id = " + batch.value() + " AND step = 2";
        try (Connection root = App.DATABASE.root("leveltally")) {
            for (List<String> breach : List.of(
                    List.of(
                            "person_id = " + person("ines") + ", on_behalf_of = " + person("ines"),
                            "prepared or changed by"),
                    List.of("on_behalf_of = " + person("maren"), "answered batch"),
                    List.of("on_behalf_of = " + person("ines"), "prepared or changed by"))) {
                root.createStatement().executeUpdate(second.formatted(breach.get(0)));
                try {
                    assertThat(bean(Proof.class).run().laws())
                            .filteredOn(checked -> checked.law() == Law.L7)
                            .singleElement()
                            .satisfies(checked -> assertThat(checked.findings())
                                    .singleElement()
                                    .asString()
                                    .contains(breach.get(1)));
                } finally {
                    root.createStatement()
                            .executeUpdate(second.formatted(
                                    "person_id = " + person("aldo") + ", on_behalf_of = " + person("aldo")));
                }
            }
        }
    }

    @Test
    void anAnswerToAnEndedBatchIsRefusedWhoeverGivesIt() {
        approvals.approve(aldo(), batch, approvals.seen(batch));
        String seen = approvals.seen(batch);
        assertThatThrownBy(() -> approvals.approve(ruth(), batch, seen)).hasMessageContaining("approved, so there is");
        assertThatThrownBy(() -> approvals.sendBack(maren(), batch, "late", java.util.Map.of()))
                .hasMessageContaining("approved, so there is nothing to answer");
    }
}
