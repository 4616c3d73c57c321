package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.jdbc;
import static leveltally.server.App.number;
import static leveltally.server.App.version;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.ClaimLine;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountLine;
import leveltally.core.money.Money;
import leveltally.core.printing.Answer;
import leveltally.server.approval.Sending;
import leveltally.server.batches.ClaimRows;
import leveltally.server.posting.Posting;
import leveltally.server.proof.Proof;
import org.junit.jupiter.api.Test;
import org.springframework.dao.DataAccessException;

/** What a claim can pay besides invoices goes the whole way: approved, numbered, printed, posted, proven. */
class LineKindsTest {
    private static AccountId account(String code) {
        return new AccountId(number("SELECT id FROM ledger_account WHERE code = ?", code));
    }

    /** A draft that pays this much of an expense, with no invoice behind it. */
    private static BatchId direct(String payee, long cents, String kind) {
        InvoiceId stand = App.invoice(payee, Money.ofMinor(cents, "USD").plain());
        BatchId batch = App.draft(stand);
        jdbc().sql("DELETE FROM reservation WHERE batch_id = ?")
                .param(batch.value())
                .update();
        jdbc().sql("UPDATE claim_line l JOIN claim c ON c.id = l.claim_id SET l.kind = ?, l.invoice_id = NULL,"
                        + " l.invoice_date = NULL, l.reference = 'Berth rent' WHERE c.batch_id = ?")
                .params(kind, batch.value())
                .update();
        return batch;
    }

    private static void debits(BatchId batch, int position, AccountId account, String job, long cents) {
        jdbc().sql("INSERT INTO claim_line_account SELECT l.id, ?, ?, ?, ? FROM claim_line l JOIN claim c"
                        + " ON c.id = l.claim_id WHERE c.batch_id = ?")
                .params(position, account.value(), job, cents, batch.value())
                .update();
    }

    private static void post(BatchId batch) {
        bean(Sending.class).send(ines(), batch, version(batch));
        App.approve(batch);
        long run = App.numbered(batch);
        App.handOver(run);
        App.answer(batch, App.documents(run), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
    }

    private static List<String> entry(BatchId batch) {
        return jdbc().sql("""
                        SELECT CONCAT(a.code, ' ', l.debit_minor, ' ', l.credit_minor) FROM payment p
                        JOIN journal_line l ON l.entry_id = p.posted_entry_id JOIN ledger_account a ON a.id = l.account_id
                        WHERE p.batch_id = ? ORDER BY l.id
                        """).param(batch.value()).query(String.class).list();
    }

    @Test
    void aDirectPaymentAndAPrepaymentArePostedToTheirOwnAccounts() {
        BatchId rent = direct("Pelorus Charts", 10_000, "DIRECT");
        debits(rent, 1, account("5100"), "", 9_000);
        debits(rent, 2, account("5200"), "J-7", 1_000);
        assertThat(bean(ClaimRows.class).of(rent).get(0).lines())
                .containsExactly(new ClaimLine.Direct(
                        "Berth rent",
                        List.of(
                                new AccountLine(account("5100"), "", Money.ofMinor(9_000, "USD")),
                                new AccountLine(account("5200"), "J-7", Money.ofMinor(1_000, "USD")))));
        post(rent);
        assertThat(entry(rent)).containsExactly("5100 9000 0", "5200 1000 0", "1010 0 10000");
        assertThat(number("SELECT COUNT(*) FROM settlement WHERE batch_id = ?", rent.value()))
                .isZero();
        assertThatThrownBy(() -> debits(rent, 3, account("5100"), "", 1))
                .isInstanceOf(DataAccessException.class)
                .hasMessageContaining("its lines stand");

        BatchId ahead = direct("Pelorus Charts", 7_000, "PREPAYMENT");
        debits(ahead, 1, account("5300"), "", 7_000);
        post(ahead);
        assertThat(entry(ahead)).containsExactly("5300 7000 0", "1010 0 7000");
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    @Test
    void anAccountChangedAfterApprovalIsNotPaid() {
        BatchId rent = direct("Pelorus Charts", 4_321, "DIRECT");
        debits(rent, 1, account("5100"), "", 4_321);
        bean(Sending.class).send(ines(), rent, version(rent));
        App.approve(rent);
        jdbc().sql("DELETE x FROM claim_line_account x JOIN claim_line l ON l.id = x.line_id JOIN claim c"
                        + " ON c.id = l.claim_id WHERE c.batch_id = ?")
                .param(rent.value())
                .update();
        debits(rent, 1, account("5200"), "", 4_321);
        assertThatThrownBy(() -> App.numbered(rent)).hasMessageContaining("is not what was approved");
        bean(leveltally.server.batches.Withdrawing.class).withdraw(ines(), rent, version(rent));
    }

    @Test
    void aKeptLineIsReadAsOne() {
        BatchId first = App.draft(App.invoice("Pelorus Charts", "12.00"));
        BatchId second = App.draft(App.invoice("Pelorus Charts", "13.00"));
        long kept = number("SELECT id FROM claim WHERE batch_id = ?", first.value());
        jdbc().sql(
                        "UPDATE claim_line l JOIN claim c ON c.id = l.claim_id SET l.kept_of_claim_id = ? WHERE c.batch_id = ?")
                .params(kept, second.value())
                .update();
        assertThat(bean(ClaimRows.class).of(second).get(0).lines())
                .singleElement()
                .isInstanceOfSatisfying(
                        ClaimLine.Kept.class,
                        line -> assertThat(line.of().value()).isEqualTo(kept));
        for (BatchId batch : List.of(second, first)) {
            bean(leveltally.server.batches.Withdrawing.class).withdraw(ines(), batch, version(batch));
        }
    }
}
