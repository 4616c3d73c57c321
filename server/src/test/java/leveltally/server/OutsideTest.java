package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.number;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.server.approval.Approvals;
import leveltally.server.approval.Sending;
import leveltally.server.batches.Withdrawing;
import leveltally.server.invoices.Entering;
import leveltally.server.invoices.NewInvoice;
import leveltally.server.outside.CardStatements;
import leveltally.server.outside.OutsidePayments;
import leveltally.server.outside.OutsideRow;
import leveltally.server.posting.Posting;
import leveltally.server.printing.Numbering;
import leveltally.server.proof.Proof;
import leveltally.server.voiding.Undoing;
import leveltally.server.voiding.Wanted;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** Payments made elsewhere: recorded with their own numbers, agreed to after the fact, posted, undone like any other. */
class OutsideTest {
    private static final LocalDate PAID = App.TODAY;
    private static int serial = 500;

    @AfterEach
    void everyLawHolds() {
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    private static WayId way(String name) {
        return new WayId(number("SELECT id FROM way_to_pay WHERE name = ?", name));
    }

    private static WayId wires() {
        return way("Wires");
    }

    private static WayId book() {
        return way("Check book, harbour office");
    }

    private static WayId card() {
        return way("Company card");
    }

    private static String fresh(String prefix) {
        return prefix + serial++;
    }

    private static OutsideRow row(String number, String vendor, String said, String amount) {
        return row(number, vendor, said, amount, PAID);
    }

    private static OutsideRow row(String number, String vendor, String said, String amount, LocalDate paidOn) {
        return new OutsideRow(number, paidOn, vendor, said, amount);
    }

    private static OutsidePayments.Recorded of(WayId way, OutsideRow... rows) {
        return new OutsidePayments.Recorded(App.operations(), way, "", "", List.of(rows));
    }

    private static BatchId recorded(WayId way, OutsideRow... rows) {
        List<BatchId> made = bean(OutsidePayments.class).record(ines(), of(way, rows), false);
        assertThat(made).hasSize(1);
        return made.get(0);
    }

    private static BatchId approved(WayId way, OutsideRow... rows) {
        BatchId batch = recorded(way, rows);
        bean(Sending.class).send(ines(), batch, App.version(batch));
        App.approve(batch);
        return batch;
    }

    private static PaymentId posted(WayId way, OutsideRow... rows) {
        BatchId batch = approved(way, rows);
        bean(Posting.class).post(ines(), batch);
        return payment(batch);
    }

    private static PaymentId payment(BatchId batch) {
        return new PaymentId(number("SELECT MIN(id) FROM payment WHERE batch_id = ?", batch.value()));
    }

    private static String reference(InvoiceId invoice) {
        return App.jdbc()
                .sql("SELECT reference FROM invoice WHERE id = ?")
                .param(invoice.value())
                .query(String.class)
                .single();
    }

    private static String text(String sql, Object... params) {
        return App.jdbc().sql(sql).params(params).query(String.class).single();
    }

    private static long net(String entry, PaymentId payment, String account) {
        return number(
                "SELECT COALESCE(SUM(l.debit_minor - l.credit_minor), 0) FROM payment p JOIN journal_line l ON l.entry_id = p."
                        + entry + " JOIN ledger_account a ON a.id = l.account_id AND a.code = ? WHERE p.id = ?",
                account,
                payment.value());
    }

    private static void withdraw(BatchId batch) {
        bean(Withdrawing.class).withdraw(ines(), batch, App.version(batch));
    }

    private static void refused(WayId way, String sentence, OutsideRow... rows) {
        assertThatThrownBy(() -> bean(OutsidePayments.class).record(ines(), of(way, rows), false))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(sentence)
                .hasMessageContaining("Nothing was recorded");
    }

    @Test
    void aWireSettlesAnInvoiceAndIsReversedWithTheBanksReference() {
        InvoiceId invoice = App.invoice("Bollard Foundry", "640.25");
        String reference = fresh("ft ");
        PaymentId wire = posted(wires(), row(reference, "bollard foundry", reference(invoice), "640.25"));
        assertThat(number("SELECT open_minor FROM invoice WHERE id = ?", invoice.value()))
                .isZero();
        assertThat(net("posted_entry_id", wire, "1010")).isEqualTo(-64_025);
        assertThat(net("posted_entry_id", wire, "2000")).isEqualTo(64_025);
        assertThat(text("SELECT number FROM outside_number WHERE payment_id = ?", wire.value()))
                .isEqualTo(reference.toUpperCase());
        // it has no paper and no number of ours
        assertThat(number("SELECT COUNT(*) FROM check_number WHERE payment_id = ?", wire.value()))
                .isZero();
        assertThat(Http.signedIn("ines")
                        .get("/api/search?text=" + reference.replace(" ", "%20"))
                        .body())
                .contains("Bollard Foundry");
        Undoing undoing = bean(Undoing.class);
        assertThatThrownBy(() -> undoing.undo(ines(), Wanted.broughtBack(wire, PAID), "came back"))
                .hasMessageContaining("the bank");
        undoing.undo(
                ines(),
                new Wanted(List.of(new Wanted.One(wire.value(), List.of())), PAID, Wanted.Fate.OPEN, null, "RET 88 12"),
                "account closed");
        assertThat(text("SELECT state FROM payment WHERE id = ?", wire.value())).isEqualTo("REVERSED");
        assertThat(number("SELECT open_minor FROM invoice WHERE id = ?", invoice.value()))
                .isEqualTo(64_025);
        // the reference stays used
        refused(wires(), "is used already", row(reference, "Bollard Foundry", reference(invoice), "640.25"));
    }

    @Test
    void aHandWrittenCheckStandsInTheRegisterAndIsVoided() {
        InvoiceId invoice = App.invoice("Pelorus Charts", "91.10");
        PaymentId check = posted(book(), row("710", "Pelorus Charts", "", "91.10"));
        long id = number("SELECT id FROM check_number WHERE payment_id = ?", check.value());
        assertThat(text("SELECT state FROM check_number WHERE id = ?", id)).isEqualTo("WRITTEN");
        assertThat(text("SELECT state FROM check_register WHERE id = ?", id)).isEqualTo("OUTSTANDING");
        Http clerk = Http.signedIn("ines");
        assertThat(clerk.get("/api/checks?text=H-710").body()).contains("Pelorus Charts");
        assertThat(clerk.get("/api/search?text=h-71").body()).contains("H-710");
        refused(book(), "is used already", row("H-710", "Pelorus Charts", "5400", "1.00"));
        App.voidCheck(ines(), new CheckNumberId(id), PAID, "lost in the post");
        assertThat(number("SELECT open_minor FROM invoice WHERE id = ?", invoice.value()))
                .isEqualTo(9_110);
        refused(book(), "is used already", row("H-710", "Pelorus Charts", "5400", "1.00"));
    }

    @Test
    void aHandWrittenCheckIsPaidOnceMoreByAPrintedOne() {
        PaymentId check = posted(book(), row("711", "Ebb Tide Linen", "5400", "17.00"));
        BatchId batch = bean(leveltally.server.voiding.Reissuing.class)
                .reissue(
                        ines(),
                        check,
                        new leveltally.server.voiding.Reissuing.Once(
                                App.CHECK_DATE, null, null, null, "lost in the mail"));
        assertThat(text(
                        "SELECT w.name FROM batch b JOIN way_to_pay w ON w.id = b.way_id WHERE b.id = ?",
                        batch.value()))
                .isEqualTo("Checks");
        withdraw(batch);
    }

    @Test
    void anUnaccountedNumberOfPrintedStockTurnsOutToBeOne() {
        WayId checks = new WayId(number("SELECT way_id FROM number_series WHERE id = ?", App.series()));
        long next = App.nextNumber();
        // torn from the box: those before it become unaccounted
        PaymentId torn = posted(checks, row(Long.toString(next + 2), "Ebb Tide Linen", "5400", "12.00"));
        assertThat(App.nextNumber()).isEqualTo(next + 3);
        String state = "SELECT state FROM check_number WHERE series_id = ? AND number = ?";
        assertThat(text(state, App.series(), next)).isEqualTo("UNACCOUNTED");
        assertThat(text(state, App.series(), next + 1)).isEqualTo("UNACCOUNTED");
        assertThat(text(state, App.series(), next + 2)).isEqualTo("WRITTEN");
        PaymentId found = posted(checks, row(Long.toString(next), "Ebb Tide Linen", "5400", "13.00"));
        assertThat(text(state, App.series(), next)).isEqualTo("WRITTEN");
        assertThat(number(
                        "SELECT live_payment_id FROM check_number WHERE series_id = ? AND number = ?",
                        App.series(),
                        next))
                .isEqualTo(found.value());
        refused(checks, "is used already", row(Long.toString(next + 2), "Ebb Tide Linen", "5400", "1.00"));
        // the printer goes on behind them
        App.printed(App.invoice("Coaming Timber", "14.00"));
        assertThat(torn).isNotEqualTo(found);
    }

    @Test
    void whatIsPaidByCardIsOwedToItsIssuerAndStandsOnAStatement() {
        BatchId batch = approved(
                card(),
                row(fresh("88300-"), "Kittiwake Uniforms", "5700", "40.00"),
                row(fresh("88300-"), "Ebb Tide Linen", "5400", "60.00"));
        bean(Posting.class).post(ines(), batch);
        List<PaymentId> paid = App.jdbc()
                .sql("SELECT id FROM payment WHERE batch_id = ? ORDER BY amount_minor")
                .param(batch.value())
                .query((r, n) -> new PaymentId(r.getLong(1)))
                .list();
        assertThat(net("posted_entry_id", paid.get(0), "1010")).isZero();
        assertThat(net("posted_entry_id", paid.get(0), "2100")).isEqualTo(-4_000);
        InvoiceId statement = statement("STMT A", 10_000);
        CardStatements statements = bean(CardStatements.class);
        statements.match(ines(), statement, Set.copyOf(paid));
        // undoing takes it off, with a warning before and after
        Undoing.Asked undone = bean(Undoing.class).undo(ines(), Wanted.broughtBack(paid.get(0), PAID), "given back");
        assertThat(undone.waits()).isFalse();
        assertThat(number("SELECT COUNT(*) FROM card_match WHERE invoice_id = ?", statement.value()))
                .isOne();
        // more than it bills is refused
        InvoiceId small = statement("STMT B", 5_999);
        assertThatThrownBy(() -> statements.match(ines(), small, Set.of(paid.get(1))))
                .isInstanceOf(Refusal.class);
        statements.match(ines(), statement, Set.of());
        assertThatThrownBy(() -> statements.match(ines(), small, Set.of(paid.get(1))))
                .hasMessageContaining("bills");
        statements.match(ines(), statement, Set.of(paid.get(1)));
        // once something of it is paid, what stands on it stays
        posted(wires(), row(fresh("FT "), "V1900", "STMT A", "30.00"));
        assertThatThrownBy(() -> statements.match(ines(), statement, Set.of())).hasMessageContaining("paid already");
        assertThatThrownBy(() -> bean(Undoing.class).undo(ines(), Wanted.broughtBack(paid.get(1), PAID), "given back"))
                .isInstanceOf(Refusal.class);
    }

    private static InvoiceId statement(String reference, long minor) {
        return bean(Entering.class)
                .enter(
                        ines(),
                        new NewInvoice(
                                InvoiceKind.INVOICE,
                                App.vendor("Skerrow Trust Card Office"),
                                reference,
                                PAID,
                                PAID,
                                new AccountId(number("SELECT id FROM ledger_account WHERE code = '2000'")),
                                Money.zero(Money.ofMinor(0, "USD").currency()),
                                List.of(new NewInvoice.Line(
                                        new AccountId(number("SELECT id FROM ledger_account WHERE code = '2100'")),
                                        Money.ofMinor(minor, "USD")))));
    }

    @Test
    void whatCannotBeIsToldRowByRowAndNothingIsRecorded() {
        InvoiceId invoice = App.invoice("Ironwrack Chain", "77.00");
        String of = reference(invoice);
        long before = number("SELECT COUNT(*) FROM batch");
        refused(wires(), "Row 1: No vendor", row("FT 1", "Nobody At All", "", "5.00"));
        refused(wires(), "Row 1: Say whom", row("FT 1", " ", "", "5.00"));
        refused(wires(), "Row 1: Type the reference", row(" ", "Ironwrack Chain", of, "77.00"));
        refused(wires(), "above zero", row("FT 1", "Ironwrack Chain", of, "0.00"));
        refused(wires(), "owes 77.00", row("FT 1", "Ironwrack Chain", of, "77.01"));
        refused(wires(), "no open invoice", row("FT 1", "Ironwrack Chain", "NONE-1", "7.00"));
        refused(wires(), "is an account of cash", row("FT 1", "Ironwrack Chain", "1010", "7.00"));
        refused(wires(), "come to 6.00", row("FT 1", "Ironwrack Chain", "5400 2.00; 5200 4.00", "7.00"));
        refused(wires(), "lies outside", row("FT 1", "Ironwrack Chain", of, "7.00", PAID.plusDays(1)));
        refused(wires(), "lies outside", row("FT 1", "Ironwrack Chain", of, "7.00", PAID.minusYears(2)));
        refused(
                wires(),
                "Row 2: Number FT 1 is used already, in a row above",
                row("FT 1", "Ironwrack Chain", "5400", "7.00"),
                row("ft  1", "Ironwrack Chain", "5400", "8.00"));
        refused(
                wires(),
                "Row 2: " + of + " stands in a row above",
                row("FT 1", "Ironwrack Chain", of, "7.00"),
                row("FT 2", "Ironwrack Chain", of, "8.00"));
        refused(book(), "they are H- and digits", row("FT 1", "Ironwrack Chain", of, "7.00"));
        BatchId draft = App.draft(invoice);
        refused(wires(), "would pay it again", row("FT 1", "Ironwrack Chain", of, "77.00"));
        withdraw(draft);
        assertThatThrownBy(() -> bean(OutsidePayments.class).record(ines(), of(wires()), false))
                .hasMessageContaining("no payment to record");
        assertThat(number("SELECT COUNT(*) FROM batch")).isEqualTo(before + 1);
    }

    @Test
    void whatIsRecordedReservesItsInvoiceAndItsNumberUntilItIsWithdrawn() {
        InvoiceId invoice = App.invoice("Ironwrack Chain", "78.00");
        String number = fresh("FT ");
        BatchId batch = recorded(wires(), row(number, "Ironwrack Chain", "", "78.00"));
        assertThatThrownBy(() -> App.draft(invoice)).isInstanceOf(Refusal.class);
        refused(wires(), "is used already", row(number, "Coaming Timber", "5400", "1.00"));
        // typed anew, it may keep its own number and invoice
        OutsideRow less = row(number, "Ironwrack Chain", reference(invoice), "70.00");
        Http clerk = Http.signedIn("ines");
        String path = "/api/outside/batches/" + batch.value();
        String typed = """
                {"version": %d, "account": %d, "way": %d, "name": "", "note": "less", "rows": [
                  {"number": "%s", "paidOn": "%s", "vendor": "Ironwrack Chain", "said": "%s", "amount": "%s"}]}
                """;
        long seen = App.version(batch);
        String again = typed.formatted(
                seen, App.operations().value(), wires().value(), number, PAID, less.said(), less.amount());
        assertThat(clerk.post(path, again).status()).isEqualTo(200);
        assertThat(number("SELECT amount_minor FROM claim WHERE batch_id = ?", batch.value()))
                .isEqualTo(7_000);
        // seen before the change
        assertThat(clerk.post(path, again).status()).isEqualTo(409);
        withdraw(batch);
        withdraw(App.draft(invoice));
        BatchId after = recorded(wires(), row(number, "Ironwrack Chain", "5400", "1.00"));
        withdraw(after);
    }

    @Test
    void daysFallIntoBatchesOfTheirOwnAndALockedMonthIsTakenToday() {
        List<BatchId> made = bean(OutsidePayments.class)
                .record(
                        ines(),
                        of(
                                wires(),
                                row(fresh("FT "), "Ebb Tide Linen", "5400", "1.00", PAID.minusDays(1)),
                                row(fresh("FT "), "Ebb Tide Linen", "5400", "2.00"),
                                row(fresh("FT "), "Ebb Tide Linen", "5400", "3.00", LocalDate.of(2025, 12, 30))),
                        false);
        assertThat(made).hasSize(3);
        BatchId locked = made.get(0);
        bean(Sending.class).send(ines(), locked, App.version(locked));
        App.approve(locked);
        bean(Posting.class).post(ines(), locked);
        assertThat(text(
                        "SELECT CONCAT(p.check_date, ' ', e.ledger_date) FROM payment p JOIN journal_entry e ON e.id = p.posted_entry_id"
                                + " WHERE p.batch_id = ?",
                        locked.value()))
                .isEqualTo("2025-12-30 " + App.TODAY);
        withdraw(made.get(1));
        withdraw(made.get(2));
    }

    @Test
    void approvalIsAfterTheFactAndSomebodyElses() {
        BatchId batch = recorded(wires(), row(fresh("FT "), "Ebb Tide Linen", "5400", "9.00"));
        assertThatThrownBy(() -> bean(Posting.class).post(ines(), batch)).hasMessageContaining("agreed to first");
        bean(Sending.class).send(ines(), batch, App.version(batch));
        assertThatThrownBy(() -> bean(Approvals.class)
                        .approve(ines(), batch, bean(Approvals.class).seen(batch)))
                .isInstanceOf(Refusal.class);
        App.approve(batch);
        // nothing of it goes onto paper
        assertThatThrownBy(() -> bean(Numbering.class).number(ines(), batch, 1, App.nextNumber(), ""))
                .isInstanceOf(Refusal.class);
        assertThat(bean(Posting.class).post(ines(), batch).postedNow()).isOne();
        // a second click writes nothing
        assertThat(bean(Posting.class).post(ines(), batch)).isEqualTo(new Posting.Outcome(0, 1, 0));
    }

    @Test
    void theDatabaseKeepsNumbersOfPaymentsAndStatements() {
        PaymentId wire = posted(wires(), row(fresh("FT "), "Ebb Tide Linen", "5400", "9.00"));
        String other = fresh("FT ");
        assertThatThrownBy(() -> App.jdbc()
                        .sql("UPDATE outside_number SET number = ? WHERE payment_id = ?")
                        .params(other, wire.value())
                        .update())
                .isNotNull();
        assertThatThrownBy(() -> App.jdbc()
                        .sql("DELETE FROM outside_number WHERE payment_id = ?")
                        .params(wire.value())
                        .update())
                .isNotNull();
    }

    @Test
    void manyRowsAskNoMoreThanFew() {
        InvoiceId invoice = App.invoice("Ironwrack Chain", "79.00");
        OutsidePayments outside = bean(OutsidePayments.class);
        List<OutsideRow> many = new ArrayList<>(IntStream.range(0, 300)
                .mapToObj(i -> row("FTM " + i, "Ebb Tide Linen", "5400", "1.00"))
                .toList());
        many.set(299, row("FTM 299", "Ironwrack Chain", reference(invoice), "79.00"));
        BatchId batch = outside.record(
                        ines(), new OutsidePayments.Recorded(App.operations(), wires(), "Many", "", many), false)
                .get(0);
        assertThat(number("SELECT COUNT(*) FROM claim WHERE batch_id = ?", batch.value()))
                .isEqualTo(300);
        bean(Sending.class).send(ines(), batch, App.version(batch));
        App.approve(batch);
        bean(Posting.class).post(ines(), batch);
        assertThat(number("SELECT COUNT(*) FROM outside_number WHERE number LIKE 'FTM %'"))
                .isEqualTo(300);
    }

    @Test
    void aCompanyCardIsSetUpWithItsIssuerAndTheAccountOfWhatIsOwed() {
        Http joss = Http.signedIn("joss");
        String path = "/api/bank-accounts/" + App.operations().value() + "/ways";
        long owed = number("SELECT id FROM ledger_account WHERE code = '2100'");
        String wanted = "{\"wayName\": \"Card of the yard\", \"method\": \"CARD\", \"owed\": %d, \"issuer\": \"%s\"}";
        Http.Answer nobody = joss.post(path, wanted.formatted(owed, "Nobody At All"));
        assertThat(nobody.status()).isEqualTo(422);
        assertThat(nobody.body()).contains("issuer");
        assertThat(joss.post(path, wanted.formatted(0, "v1900")).body()).contains("other liability");
        assertThat(joss.post(path, wanted.formatted(owed, "v1900")).status()).isEqualTo(200);
        assertThat(joss.get("/api/outside/ways").body()).contains("Card of the yard");
        // what is only recorded is no way for a batch
        assertThat(joss.get("/api/bank-accounts").body()).doesNotContain("Card of the yard");
        // what the issuer is owed for cannot be changed under its payments
        assertThatThrownBy(() -> App.asRoot("UPDATE way_to_pay SET owed_account_id = 1 WHERE name = 'Company card'"))
                .isNotNull();
    }

    @Test
    void aCancelledStatementBillsNothing() {
        PaymentId paid = posted(card(), row(fresh("88400-"), "Kittiwake Uniforms", "5700", "41.00"));
        InvoiceId statement = statement("STMT C", 4_100);
        bean(CardStatements.class).match(ines(), statement, Set.of(paid));
        bean(leveltally.server.invoices.InvoiceChanging.class)
                .cancel(ines(), statement, PAID, "the issuer sent another");
        InvoiceId other = statement("STMT D", 4_100);
        bean(CardStatements.class).match(ines(), other, Set.of(paid));
        assertThat(number("SELECT invoice_id FROM card_match WHERE payment_id = ?", paid.value()))
                .isEqualTo(other.value());
    }
}
