package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.invoice;
import static leveltally.server.App.ruth;
import static leveltally.server.App.tomas;
import static leveltally.server.App.version;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.ClaimId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.marks.Fact;
import leveltally.core.marks.Mark;
import leveltally.core.marks.MarkKind;
import leveltally.core.money.Money;
import leveltally.core.terms.Terms;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.VendorId;
import leveltally.server.batches.Withdrawing;
import leveltally.server.marks.MarkAnswers;
import leveltally.server.marks.MarkRows;
import leveltally.server.posting.Posting;
import leveltally.server.vendors.ChangeViews;
import leveltally.server.vendors.Vendor;
import leveltally.server.vendors.VendorChanges;
import leveltally.server.vendors.Vendors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** What the data says about a payment: every kind of mark from rows in the database, and none without cause. */
class MarksTest {
    private static final Currency USD = Currency.getInstance("USD");
    private static int count = 1;

    private final List<BatchId> drafts = new ArrayList<>();

    @AfterEach
    void withdraw() {
        drafts.forEach(draft -> bean(Withdrawing.class).withdraw(ines(), draft, version(draft)));
    }

    /** A vendor of its own, so that no other test's payments are known of it. */
    private static String vendor(boolean oneTime, String address, BankDetails bank) {
        String name = "Marked Works " + count++;
        VendorId id = bean(Vendors.class)
                .add(
                        tomas(),
                        new Vendor(
                                new VendorId(0),
                                "MK" + count,
                                name,
                                "Office",
                                5,
                                PaymentMethod.CHECK,
                                USD,
                                Terms.net(30),
                                null,
                                oneTime),
                        new RemitTo(name, List.of(address, "Skerrow 4" + count)),
                        "4" + count,
                        bank);
        bean(ChangeViews.class).waiting().stream()
                .filter(change -> change.vendor() == id.value())
                .forEach(change -> bean(VendorChanges.class).confirm(ruth(), change.id(), bank));
        return name;
    }

    private static String vendor() {
        return vendor(false, "1 Mark Lane " + count, null);
    }

    private static InvoiceId named(String vendor, String amount, String reference, String date) {
        InvoiceId id = invoice(vendor, amount);
        App.asRoot("UPDATE invoice SET reference = '" + reference + "', invoice_date = '" + date + "' WHERE id = "
                + id.value());
        return id;
    }

    private List<Mark> marks(InvoiceId... invoices) {
        BatchId draft = App.draft(invoices);
        drafts.add(draft);
        Map<ClaimId, List<Mark>> found =
                bean(MarkRows.class).of(draft, App.TODAY, List.of(Money.parse("10000.00", USD)));
        return found.values().stream().flatMap(List::stream).toList();
    }

    private static List<MarkKind> kinds(List<Mark> marks) {
        return marks.stream().map(Mark::kind).toList();
    }

    /** Pays a vendor once, so that it is no longer new. */
    private static void paid(String vendor, String amount) {
        BatchId batch = App.printed(invoice(vendor, amount));
        bean(Posting.class).post(ines(), batch);
    }

    @Test
    void theFirstPaymentIsMarkedAndTheNextIsNot() {
        String vendor = vendor();
        assertThat(kinds(marks(invoice(vendor, "81.03")))).containsExactly(MarkKind.FIRST_PAYMENT);
        paid(vendor, "82.07");
        assertThat(marks(invoice(vendor, "83.09"))).isEmpty();
    }

    @Test
    void aOneTimePayeeIsMarkedAsSuchAndNotAsNew() {
        assertThat(kinds(marks(invoice(vendor(true, "2 Mark Lane", null), "84.11"))))
                .containsExactly(MarkKind.ONE_TIME);
    }

    @Test
    void aDuplicateIsFoundWhereverItWent() {
        String vendor = vendor();
        paid(vendor, "5.00");
        InvoiceId one = named(vendor, "85.13", "AB-0071", "2026-10-05");
        InvoiceId other = named(vendor, "85.13", "ab 71", "2026-11-02");
        Mark mark = marks(one).get(0);
        assertThat(mark.kind()).isEqualTo(MarkKind.DUPLICATE);
        assertThat(mark.facts()).singleElement().isInstanceOfSatisfying(Fact.OtherInvoice.class, fact -> {
            assertThat(fact.id()).isEqualTo(other);
            assertThat(fact.where()).isEqualTo("open");
        });
        BatchId elsewhere = App.draft(other);
        drafts.add(elsewhere);
        assertThat(where(one)).isEqualTo("in batch “Test batch”");
        bean(Withdrawing.class).withdraw(ines(), drafts.remove(drafts.size() - 1), version(elsewhere));
        BatchId printed = App.printed(other);
        bean(Posting.class).post(ines(), printed);
        assertThat(where(one)).startsWith("paid by check ").endsWith("Fri 13 Nov 2026");
    }

    private String where(InvoiceId one) {
        BatchId draft = drafts.get(0);
        assertThat(App.invoiceOf(draft)).isEqualTo(one);
        return bean(MarkRows.class).of(draft, App.TODAY, List.of()).values().stream()
                .flatMap(List::stream)
                .filter(mark -> mark.kind() == MarkKind.DUPLICATE)
                .map(mark -> ((Fact.OtherInvoice) mark.facts().get(0)).where())
                .findFirst()
                .orElseThrow();
    }

    @Test
    void vendorsAtOneAddressOrOneAccountAreComparedAndOthersAreNot() {
        BankDetails account = BankDetails.typed("990044105", "5511200" + count);
        String one = vendor(false, "7 Shared Wharf", account);
        String sameAccount = vendor(false, "8 Elsewhere Street", account);
        String stranger = vendor(false, "9 Far Street", null);
        named(sameAccount, "86.17", "SH-100", "2026-10-20");
        named(stranger, "86.17", "SH-100", "2026-10-21");
        List<Mark> marks = marks(named(one, "86.17", "SH-100", "2026-10-22"));
        assertThat(marks.stream().filter(mark -> mark.kind() == MarkKind.DUPLICATE))
                .singleElement()
                .satisfies(mark -> assertThat(mark.reason()).contains("of " + sameAccount));
    }

    @Test
    void theSameReferenceAYearApartOrAnotherAmountIsNoDuplicate() {
        String vendor = vendor();
        paid(vendor, "5.03");
        named(vendor, "87.19", "YR-1", "2025-10-01");
        named(vendor, "87.20", "YR-1-", "2026-10-01");
        assertThat(marks(named(vendor, "87.19", "YR-01", "2026-10-02"))).isEmpty();
    }

    @Test
    void farAboveTheUsualNeedsFivePaymentsAndMoreThanThreeTimes() {
        String vendor = vendor();
        for (int i = 0; i < 4; i++) {
            paid(vendor, "20.0" + i);
        }
        assertThat(marks(invoice(vendor, "900.00"))).isEmpty();
        paid(vendor, "20.09");
        assertThat(marks(invoice(vendor, "60.06"))).isEmpty();
        Mark mark = marks(invoice(vendor, "60.07")).get(0);
        assertThat(mark.kind()).isEqualTo(MarkKind.FAR_ABOVE);
        Fact.Usual usual = (Fact.Usual) mark.facts().get(0);
        assertThat(usual.known()).isEqualTo(5);
        assertThat(usual.median()).hasToString("20.02");
        assertThat(usual.low()).hasToString("20.00");
        assertThat(usual.high()).hasToString("20.09");
    }

    @Test
    void twoInvoicesJustUnderTheLimitArePutTogether() {
        String vendor = vendor();
        paid(vendor, "9000.00");
        named(vendor, "9800.00", "JU-1", "2026-10-20");
        List<Mark> marks = marks(named(vendor, "9700.00", "JU-2", "2026-10-29"));
        assertThat(kinds(marks)).containsExactly(MarkKind.JUST_UNDER);
        assertThat(marks.get(0).reason()).contains("just under the limit of 10,000.00");
        String alone = vendor();
        paid(alone, "8999.99");
        assertThat(marks(named(alone, "9700.00", "JU-3", "2026-10-29"))).isEmpty();
    }

    @Test
    void aChangedAddressIsMarkedForThirtyDays() {
        String vendor = vendor();
        paid(vendor, "88.21");
        long at = App.number(
                "SELECT MIN(id) FROM remit_to WHERE vendor_id = ?",
                App.vendor(vendor).value());
        long change = bean(VendorChanges.class)
                .propose(
                        tomas(),
                        App.vendor(vendor),
                        new VendorChanges.Wanted(
                                at, vendor, List.of("12 New Quay", "Skerrow"), "41000", true, null, "a letter"));
        assertThat(marks(invoice(vendor, "88.23"))).isEmpty();
        bean(VendorChanges.class).confirm(ruth(), change, null);
        List<Mark> marks = marks(invoice(vendor, "88.27"));
        assertThat(kinds(marks)).containsExactly(MarkKind.CHANGED_PAYEE);
        Fact.Change fact = (Fact.Change) marks.get(0).facts().get(0);
        assertThat(fact.before()).contains("Mark Lane");
        assertThat(fact.after()).contains("12 New Quay");
        assertThat(fact.proposedBy()).isEqualTo("Tomas Brandt");
        assertThat(fact.confirmedBy()).isEqualTo("Ruth Castellane");
        BatchId draft = drafts.get(drafts.size() - 1);
        assertThat(bean(MarkRows.class).of(draft, App.TODAY.plusDays(30), List.of()))
                .isNotEmpty();
        assertThat(bean(MarkRows.class).of(draft, App.TODAY.plusDays(31), List.of()))
                .isEmpty();
    }

    @Test
    void anAnswerIsToAMarkThereIsAndOnlyWhileSomebodyReadsIt() {
        BatchId draft = App.draft(invoice(vendor(), "89.29"));
        MarkAnswers answers = bean(MarkAnswers.class);
        assertThatThrownBy(() -> answers.answer(ines(), draft, "SOMETHING 1", "x"))
                .hasMessageContaining("no such mark");
        assertThatThrownBy(() -> answers.answer(ines(), draft, "FIRST_PAYMENT 1", " "))
                .hasMessageContaining("Say what you found out");
        assertThatThrownBy(() -> answers.answer(App.maren(), draft, "FIRST_PAYMENT 1", "x"))
                .hasMessageContaining("needs the role clerk");
        answers.answer(ines(), draft, "FIRST_PAYMENT 1", "known from the fair");
        answers.answer(tomas(), draft, "FIRST_PAYMENT 1", "and from the harbour");
        assertThat(answers.of(draft).get("FIRST_PAYMENT 1").note()).isEqualTo("and from the harbour");
        assertThat(answers.of(draft).get("FIRST_PAYMENT 1").who()).isEqualTo("Tomas Brandt");
        bean(Withdrawing.class).withdraw(ines(), draft, version(draft));
        assertThatThrownBy(() -> answers.answer(ines(), draft, "FIRST_PAYMENT 1", "late"))
                .hasMessageContaining("nobody would read a note");
    }
}
