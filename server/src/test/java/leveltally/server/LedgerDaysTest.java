package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.sql.Connection;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.printing.Answer;
import leveltally.core.selection.Decision;
import leveltally.core.selection.Selection;
import leveltally.server.batches.Drafting;
import leveltally.server.batches.Making;
import leveltally.server.batches.Withdrawing;
import leveltally.server.posting.Posting;
import leveltally.server.proof.Proof;
import leveltally.server.selection.Due;
import leveltally.server.selection.DueQuestion;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** What is open is open as of a day (law L2): in the list, in the draft, at posting, and in the database behind them. */
class LedgerDaysTest {
    private static final String VENDOR = "Bollard Foundry";
    private static final LocalDate THIRD = LocalDate.of(2026, 11, 3);
    private static final LocalDate FIFTH = LocalDate.of(2026, 11, 5);

    @AfterEach
    void everyLawHolds() {
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    private static DueQuestion question(InvoiceId invoice, LocalDate ledgerDate) {
        return DueQuestion.of(App.operations().value(), App.CHECK_DATE.toString(), "2000-01-01", null)
                .inLedgerOn(ledgerDate)
                .marked(null, String.valueOf(invoice.value()));
    }

    private static BatchId posted(InvoiceId invoice, LocalDate ledgerDate) {
        BatchId batch = bean(Making.class).make(ines(), App.batch("By days", question(invoice, ledgerDate)));
        bean(leveltally.server.approval.Sending.class).send(ines(), batch, App.version(batch));
        App.approve(batch);
        long run = App.numbered(batch);
        App.handOver(run);
        App.answer(batch, App.documents(run), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
        return batch;
    }

    private static void voidToday(BatchId batch) {
        long check = App.number(
                "SELECT n.id FROM check_number n JOIN payment p ON p.id = n.live_payment_id WHERE p.batch_id = ?",
                batch.value());
        App.voidCheck(ines(), new CheckNumberId(check), App.TODAY, "lost");
    }

    private static LocalDate openSince(InvoiceId invoice) {
        return App.jdbc()
                .sql("SELECT open_since FROM invoice WHERE id = ?")
                .param(invoice.value())
                .query(LocalDate.class)
                .single();
    }

    /** Paid 3 Nov, voided 12 Nov: it can be paid again from 12 Nov on, not on 5 Nov. */
    @Test
    void whatWasBroughtBackIsPaidAgainFromThatDayOn() throws SQLException {
        InvoiceId invoice = App.invoice(VENDOR, "71.00");
        voidToday(posted(invoice, THIRD));
        assertThat(openSince(invoice)).isEqualTo(App.TODAY);

        Selection early = bean(Due.class).select(question(invoice, FIFTH), App.TODAY);
        assertThat(early.rows())
                .filteredOn(row -> row.candidate().invoice().id().equals(invoice))
                .singleElement()
                .satisfies(row -> assertThat(((Decision.LeftOut) row.decision()).inWords())
                        .isEqualTo("entered later: open again from Thu 12 Nov 2026"));
        InvoiceId other = App.invoice(VENDOR, "72.00");
        BatchId draft = bean(Making.class).make(ines(), App.batch("Early", question(other, FIFTH)));
        assertThatThrownBy(() -> bean(Drafting.class).add(ines(), draft, App.version(draft), List.of(invoice)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("open again from Thu 12 Nov 2026");
        bean(Withdrawing.class).withdraw(ines(), draft, App.version(draft));

        String settle =
                "INSERT INTO settlement (id, invoice_id, kind, currency, amount_minor, ledger_date) VALUES (-1, "
                        + invoice.value() + ", 'CASH', 'USD', 100, '%s')";
        try (Connection application = App.DATABASE.application()) {
            assertThatThrownBy(() -> application.createStatement().executeUpdate(settle.formatted(FIFTH)))
                    .hasMessageContaining("L2: it is not open by that much");
            assertThatThrownBy(() -> application.createStatement().executeUpdate(settle.formatted("2026-11-01")))
                    .hasMessageContaining("L2: nothing is settled before its own ledger date");
        }
        posted(invoice, App.TODAY);
        assertThat(App.number("SELECT open_minor FROM invoice WHERE id = ?", invoice.value()))
                .isZero();
    }

    @Test
    void paidAndBroughtBackOnOneDayItWasOpenAllAlong() {
        InvoiceId invoice = App.invoice(VENDOR, "31.00");
        voidToday(posted(invoice, App.TODAY));
        assertThat(openSince(invoice)).isEqualTo(LocalDate.of(2026, 11, 2));
    }

    @Test
    void rejectsAReversalThatIsNoMirror() throws SQLException {
        InvoiceId invoice = App.invoice(VENDOR, "33.00");
        posted(invoice, App.TODAY);
        String reverse =
                "INSERT INTO settlement (id, invoice_id, kind, currency, amount_minor, ledger_date, reverses_id)"
                        + " SELECT -1, invoice_id, kind, currency, %s, %s, id FROM settlement WHERE invoice_id = "
                        + invoice.value();
        try (Connection application = App.DATABASE.application()) {
            for (List<String> wrong : List.of(
                    List.of("-amount_minor + 1", "ledger_date"),
                    List.of("-amount_minor", "ledger_date - INTERVAL 1 DAY"))) {
                assertThatThrownBy(() -> application
                                .createStatement()
                                .executeUpdate(reverse.formatted(wrong.get(0), wrong.get(1))))
                        .hasMessageContaining("L2: undoing mirrors its original");
            }
        }
    }
}
