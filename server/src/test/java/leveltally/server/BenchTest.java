package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.version;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimLine;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.ledger.AccountId;
import leveltally.core.money.Money;
import leveltally.core.printing.Answer;
import leveltally.core.selection.CashWay;
import leveltally.core.selection.Selection;
import leveltally.server.approval.Sending;
import leveltally.server.batches.ClaimCredits;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.Drafting;
import leveltally.server.batches.GatheringAgain;
import leveltally.server.batches.Making;
import leveltally.server.batches.Steps;
import leveltally.server.batches.Withdrawing;
import leveltally.server.invoices.Entering;
import leveltally.server.invoices.Holds;
import leveltally.server.invoices.NewInvoice;
import leveltally.server.invoices.Offsets;
import leveltally.server.posting.Posting;
import leveltally.server.proof.Proof;
import leveltally.server.selection.Due;
import leveltally.server.selection.DueQuestion;
import leveltally.server.vendors.Vendors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** The bench for a draft on the real database: every edit, undone and done again; credits, offsets, bad luck. */
class BenchTest {
    private static final String FOUNDRY = "Coaming Timber";
    private static final String CHAIN = "Ironwrack Chain";

    private final Making making = bean(Making.class);
    private final Drafting drafting = bean(Drafting.class);
    private final ClaimCredits credits = bean(ClaimCredits.class);
    private final GatheringAgain gathering = bean(GatheringAgain.class);
    private final Steps steps = bean(Steps.class);
    private final Withdrawing withdrawing = bean(Withdrawing.class);

    @AfterEach
    void everyLawHolds() {
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    static InvoiceId credit(String vendor, String amount) {
        AccountId payables = new AccountId(App.number("SELECT id FROM ledger_account WHERE code = '2000'"));
        AccountId expense = new AccountId(App.number("SELECT id FROM ledger_account WHERE code = '5200'"));
        Money money = Money.parse(amount, java.util.Currency.getInstance("USD"));
        LocalDate date = LocalDate.of(2026, 11, 2);
        return bean(Entering.class)
                .enter(
                        ines(),
                        new NewInvoice(
                                InvoiceKind.CREDIT,
                                App.vendor(vendor),
                                "TC-" + System.nanoTime(),
                                date,
                                date,
                                payables,
                                Money.zero(money.currency()),
                                List.of(new NewInvoice.Line(expense, money))));
    }

    private static long open(InvoiceId id) {
        return App.number("SELECT open_minor FROM invoice WHERE id = ?", id.value());
    }

    private static List<Claim> claims(BatchId batch) {
        return bean(ClaimRows.class).of(batch);
    }

    private static List<String> shape(BatchId batch) {
        return claims(batch).stream()
                .map(claim -> claim.remitTo().payee() + " " + claim.amount() + " of "
                        + claim.lines().size())
                .toList();
    }

    private static String joined(InvoiceId... ids) {
        return Stream.of(ids).map(id -> String.valueOf(id.value())).collect(Collectors.joining("."));
    }

    private static DueQuestion only(InvoiceId... ids) {
        return DueQuestion.of(App.operations().value(), App.CHECK_DATE.toString(), "2000-01-01", null)
                .marked(null, joined(ids));
    }

    @Test
    void everyEditIsUndoneAndDoneAgainInItsOrder() {
        InvoiceId a = App.invoice(FOUNDRY, "100.00");
        InvoiceId b = App.invoice(FOUNDRY, "200.00");
        InvoiceId c = App.invoice(CHAIN, "50.00");
        InvoiceId later = App.invoice(CHAIN, "5.00");
        BatchId batch = App.draft(a, b, c);
        List<List<String>> seen = new java.util.ArrayList<>();
        seen.add(shape(batch));
        List<Runnable> edits = List.of(
                () -> drafting.pay(ines(), batch, version(batch), a, "40.00"),
                () -> drafting.split(ines(), batch, version(batch), Set.of(b)),
                () -> drafting.add(ines(), batch, version(batch), List.of(later)),
                () -> drafting.note(
                        ines(), batch, version(batch), claims(batch).get(0).id(), "see our letter"),
                () -> drafting.join(ines(), batch, version(batch), Set.of(a, b)),
                () -> drafting.payAlone(ines(), batch, version(batch), c),
                () -> drafting.takeOut(ines(), batch, version(batch), Set.of(a)),
                () -> drafting.clear(ines(), batch, version(batch)));
        for (Runnable edit : edits) {
            edit.run();
            seen.add(shape(batch));
        }
        assertThat(shape(batch)).isEmpty();
        for (int i = edits.size() - 1; i >= 0; i--) {
            steps.undo(ines(), batch, version(batch));
            assertThat(shape(batch)).as("after undoing edit %d", i).isEqualTo(seen.get(i));
        }
        assertThatThrownBy(() -> steps.undo(ines(), batch, version(batch))).hasMessageContaining("no step to undo");
        for (int i = 1; i <= edits.size(); i++) {
            steps.redo(ines(), batch, version(batch));
            assertThat(shape(batch)).as("after doing edit %d again", i).isEqualTo(seen.get(i));
        }
        steps.undo(ines(), batch, version(batch));
        drafting.takeOut(ines(), batch, version(batch), Set.of(b));
        assertThatThrownBy(() -> steps.redo(ines(), batch, version(batch))).hasMessageContaining("no step to do again");
        withdrawing.withdraw(ines(), batch, version(batch));
    }

    @Test
    void creditsReduceAPaymentFromDueToTheLedgerAndComeBackWithAVoid() {
        InvoiceId first = App.invoice(FOUNDRY, "800.00");
        InvoiceId second = App.invoice(FOUNDRY, "300.00");
        InvoiceId credit = credit(FOUNDRY, "250.00");
        DueQuestion question = only(first, second).paying(true, null, null);
        Selection selection = bean(Due.class).select(question, App.TODAY);
        assertThat(selection.toPay()).hasToString("850.00");
        BatchId batch = making.make(ines(), App.batch("Credits", question));
        assertThat(claims(batch))
                .singleElement()
                .satisfies(claim ->
                        assertThat(claim.lines()).extracting(ClaimLine::kind).contains(ClaimLine.Kind.CREDIT));
        // the credit is reserved with its claim
        assertThatThrownBy(() -> bean(Offsets.class).make(ines(), App.vendor(FOUNDRY), List.of(first), List.of(credit)))
                .hasMessageContaining("Credits");
        bean(Sending.class).send(ines(), batch, version(batch));
        App.approve(batch);
        long run = App.numbered(batch);
        App.handOver(run);
        App.answer(batch, App.documents(run), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
        assertThat(open(first) + open(second) + open(credit)).isZero();
        assertThat(App.number(
                        "SELECT SUM(l.debit_minor) FROM journal_entry e JOIN journal_line l ON l.entry_id = e.id"
                                + " WHERE e.batch_id = ?",
                        batch.value()))
                .isEqualTo(85_000);
        long check = App.number(
                "SELECT n.id FROM check_number n JOIN payment p ON p.id = n.live_payment_id WHERE p.batch_id = ?",
                batch.value());
        var later = new leveltally.core.people.Actor(
                ines().person(), "ines", ines().roles(), App.CHECK_DATE, java.time.Instant.now(), "test");
        App.voidCheck(later, new leveltally.core.checks.CheckNumberId(check), App.CHECK_DATE, "lost");
        assertThat(open(first)).isEqualTo(80_000);
        assertThat(open(credit)).isEqualTo(25_000);
    }

    @Test
    void creditsAreChosenPerClaimAndReleased() {
        InvoiceId invoice = App.invoice(CHAIN, "500.00");
        InvoiceId small = credit(CHAIN, "20.00");
        InvoiceId large = credit(CHAIN, "600.00");
        BatchId batch = App.draft(invoice);
        var claim = claims(batch).get(0).id();
        credits.useCredits(ines(), batch, version(batch), claim, List.of(small));
        assertThat(shape(batch)).containsExactly(CHAIN + " 480.00 of 2");
        assertThatThrownBy(() -> credits.useCredits(ines(), batch, version(batch), claim, List.of(small, large)))
                .hasMessageContaining("no check can be written for zero");
        assertThatThrownBy(() -> credits.useCredits(ines(), batch, version(batch), claim, List.of(invoice)))
                .hasMessageContaining("cannot be used here");
        credits.releaseCredits(ines(), batch, version(batch));
        assertThat(shape(batch)).containsExactly(CHAIN + " 500.00 of 1");
        withdrawing.withdraw(ines(), batch, version(batch));
    }

    @Test
    void anOffsetSettlesToZeroAndIsTakenBack() {
        InvoiceId invoice = App.invoice("Jackstay Rigging", "300.00");
        InvoiceId credit = credit("Jackstay Rigging", "900.00");
        Selection selection = bean(Due.class).select(only(invoice).paying(true, null, null), App.TODAY);
        assertThat(selection.claims()).isEmpty();
        assertThat(selection.offsets()).hasSize(1);
        Offsets offsets = bean(Offsets.class);
        var done = offsets.make(ines(), App.vendor("Jackstay Rigging"), List.of(invoice), List.of(credit));
        assertThat(done.amount()).hasToString("300.00");
        assertThat(open(invoice)).isZero();
        assertThat(open(credit)).isEqualTo(60_000);
        offsets.undo(ines(), done.id(), App.TODAY);
        assertThat(open(invoice)).isEqualTo(30_000);
        assertThat(open(credit)).isEqualTo(90_000);
        assertThatThrownBy(() -> offsets.undo(ines(), done.id(), App.TODAY)).hasMessageContaining("taken back already");
        long euro = App.number("SELECT id FROM vendor WHERE currency = 'EUR' LIMIT 1");
        assertThatThrownBy(() -> offsets.undo(ines(), done.id(), App.TODAY.minusDays(1)))
                .isInstanceOf(leveltally.core.Refusal.class);
        assertThat(euro).isPositive();
        assertThatThrownBy(() -> offsets.make(ines(), App.vendor(CHAIN), List.of(invoice), List.of(credit)))
                .hasMessageContaining("of another vendor");
        assertThatThrownBy(() -> offsets.make(ines(), App.vendor("Jackstay Rigging"), List.of(invoice), List.of()))
                .hasMessageContaining("at least one open invoice and one open credit");
    }

    @Test
    void gatheringAgainShowsTheDifferenceAndKeepsWhatWasDoneByHand() {
        String vendor = "Nightjar Cleaning";
        long id = App.vendor(vendor).value();
        DueQuestion question = DueQuestion.of(App.operations().value(), App.CHECK_DATE.toString(), "2026-12-31", null)
                .toVendors(List.of(id));
        InvoiceId out = App.invoice(vendor, "11.00");
        InvoiceId stays = App.invoice(vendor, "12.00");
        BatchId batch = making.make(ines(), App.batch("Again", question));
        drafting.takeOut(ines(), batch, version(batch), Set.of(out));
        InvoiceId come = App.invoice(vendor, "13.00");
        bean(Holds.class).hold(ines(), stays, "short delivery");
        var difference = gathering.gathering(ines(), batch);
        assertThat(difference.added())
                .extracting(row -> row.candidate().invoice().id())
                .containsExactly(come);
        assertThat(difference.removed())
                .containsExactly(new leveltally.core.batches.Gathering.Removed(stays, "held invoice: short delivery"));
        gathering.gatherAgain(
                ines(),
                batch,
                version(batch),
                gathering.gathering(ines(), batch).shown());
        assertThat(gathering.gathering(ines(), batch).isEmpty()).isTrue();
        assertThatThrownBy(() -> gathering.gatherAgain(
                        ines(),
                        batch,
                        version(batch),
                        gathering.gathering(ines(), batch).shown()))
                .hasMessageContaining("exactly what the batch has");
        steps.undo(ines(), batch, version(batch));
        withdrawing.withdraw(ines(), batch, version(batch));
        bean(Holds.class).release(ines(), stays, "it came");
    }

    @Test
    void theLimitIsKeptFromDueIntoTheBatch() {
        InvoiceId a = App.invoice(FOUNDRY, "100.00");
        InvoiceId b = App.invoice(CHAIN, "70.00");
        DueQuestion question = only().marked(null, null).paying(false, "120.00", CashWay.PART_PAY);
        question = new DueQuestion(
                question.account(),
                null,
                question.checkDate(),
                null,
                "2026-12-31",
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                Math.min(a.value(), b.value()),
                Math.max(a.value(), b.value()),
                null,
                null,
                false,
                null,
                null,
                null,
                "120.00",
                CashWay.PART_PAY,
                null,
                null);
        Selection selection = bean(Due.class).select(question, App.TODAY);
        assertThat(selection.toPay()).hasToString("120.00");
        BatchId batch = making.make(ines(), App.batch("Limit", question));
        assertThat(claims(batch).stream().map(Claim::amount).reduce(Money::plus).orElseThrow())
                .hasToString("120.00");
        assertThat(App.number(
                        "SELECT COUNT(*) FROM claim_line l JOIN claim c ON c.id = l.claim_id"
                                + " WHERE c.batch_id = ? AND l.part",
                        batch.value()))
                .isOne();
        withdrawing.withdraw(ines(), batch, version(batch));
    }

    @Test
    void rejectsAnAddressOfAnotherVendorAndTakesOneOfItsOwn() {
        String vendor = "Guillemot Engine Parts";
        BatchId batch = App.draft(App.invoice(vendor, "64.00"));
        var claim = claims(batch).get(0).id();
        long other = App.number("SELECT MIN(id) FROM remit_to WHERE payee = ?", CHAIN);
        assertThatThrownBy(() -> drafting.sendTo(ines(), batch, version(batch), claim, other))
                .hasMessageContaining("no address of that vendor");
        long second = App.number("SELECT MAX(id) FROM remit_to WHERE payee = ?", vendor);
        drafting.sendTo(ines(), batch, version(batch), claim, second);
        assertThat(claims(batch).get(0).remitTo().lines().toString()).contains("Accounts Office");
        withdrawing.withdraw(ines(), batch, version(batch));
    }

    @Test
    void aVendorHeldWhileItsInvoiceSitsInADraftCannotBeSentAndIsReleasedByAControllerOnly() {
        BatchId batch = App.draft(App.invoice("Knot & Splice", "9.00"));
        Vendors vendors = bean(Vendors.class);
        vendors.hold(ines(), App.vendor("Knot & Splice"), "two accounts");
        assertThatThrownBy(() -> bean(Sending.class).send(ines(), batch, version(batch)))
                .hasMessageContaining("two accounts");
        assertThatThrownBy(() -> vendors.release(ines(), App.vendor("Knot & Splice"), "fine"))
                .hasMessageContaining("needs the role controller");
        vendors.release(App.ruth(), App.vendor("Knot & Splice"), "one of them closed");
        bean(Sending.class).send(ines(), batch, version(batch));
        withdrawing.withdraw(ines(), batch, version(batch));
    }
}
