package leveltally.core.batches;

import static leveltally.core.Cases.CHECK_DATE;
import static leveltally.core.Cases.invoice;
import static leveltally.core.Cases.openCredit;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.LongStream;
import leveltally.core.Refusal;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.selection.Paying;
import leveltally.core.vendors.VendorId;
import org.junit.jupiter.api.Test;

class DraftTest {
    private static final VendorId VENDOR = new VendorId(7);

    private static Set<InvoiceId> ids(long... ids) {
        return LongStream.of(ids).mapToObj(InvoiceId::new).collect(Collectors.toSet());
    }

    private static DraftLine line(long id) {
        return DraftLine.invoice(new InvoiceId(id), false, false);
    }

    private static DraftClaim claim(long id, long... invoices) {
        return new DraftClaim(
                new ClaimId(id),
                VENDOR,
                70,
                false,
                "",
                LongStream.of(invoices).mapToObj(DraftTest::line).toList());
    }

    private static final Draft DRAFT = new Draft(List.of(claim(1, 11, 12, 13), claim(2, 21)));

    private static List<List<Long>> shape(Draft draft) {
        return draft.claims().stream()
                .map(c -> c.lines().stream().map(l -> l.id().value()).toList())
                .toList();
    }

    @Test
    void takesOutAndDropsWhatIsEmpty() {
        assertThat(shape(DRAFT.takeOut(ids(12, 21)))).containsExactly(List.of(11L, 13L));
        assertThatThrownBy(() -> DRAFT.takeOut(ids(99))).hasMessageContaining("not in the batch any more");
    }

    @Test
    void addsToThePaymentOfTheSameAddressUnlessItMustStandAlone() {
        List<Draft.Addition> additions = List.of(
                new Draft.Addition(VENDOR, 70, line(14)),
                new Draft.Addition(VENDOR, 70, DraftLine.invoice(new InvoiceId(15), true, true)),
                new Draft.Addition(new VendorId(8), 80, line(16)));
        Draft added = DRAFT.add(additions, Paying.Grouping.PAYEE);
        assertThat(shape(DRAFT.add(additions, Paying.Grouping.INVOICE)))
                .containsExactly(List.of(11L, 12L, 13L), List.of(21L), List.of(14L), List.of(15L), List.of(16L));
        assertThat(shape(added)).containsExactly(List.of(11L, 12L, 13L, 14L), List.of(21L), List.of(15L), List.of(16L));
    }

    @Test
    void splitsWholeInvoicesAndJoinsThemAgain() {
        Draft split = DRAFT.split(ids(12, 13));
        assertThat(shape(split)).containsExactly(List.of(11L), List.of(21L), List.of(12L, 13L));
        assertThat(split.claims().get(2).apart()).isTrue();
        assertThat(shape(split.join(ids(11, 12)))).containsExactly(List.of(11L, 12L, 13L), List.of(21L));
        assertThatThrownBy(() -> DRAFT.split(ids(11, 21))).hasMessageContaining("several payments");
        assertThatThrownBy(() -> DRAFT.split(ids(21))).hasMessageContaining("nothing to split");
        assertThatThrownBy(() -> DRAFT.join(ids(11, 12))).hasMessageContaining("at least two payments");
    }

    @Test
    void joinsOnlyTheSamePayeeAndNoOwnChecks() {
        Draft other = new Draft(
                List.of(claim(1, 11), new DraftClaim(new ClaimId(2), VENDOR, 71, false, "", List.of(line(21)))));
        assertThatThrownBy(() -> other.join(ids(11, 21))).hasMessageContaining("same address");
        Draft own = DRAFT.payAlone(new InvoiceId(11));
        assertThatThrownBy(() -> own.join(ids(11, 12))).hasMessageContaining("its own check");
    }

    @Test
    void anOwnCheckLeavesItsPaymentAndItsCredits() {
        Draft own = DRAFT.useCredits(new ClaimId(1), List.of(new InvoiceId(91))).payAlone(new InvoiceId(12));
        assertThat(shape(own)).containsExactly(List.of(11L, 13L, 91L), List.of(21L), List.of(12L));
        ClaimId id = new ClaimId(2);
        Draft alone = DRAFT.payAlone(new InvoiceId(21));
        assertThatThrownBy(() -> alone.useCredits(id, List.of(new InvoiceId(91))))
                .hasMessageContaining("paid by itself");
    }

    @Test
    void notesHaveTheRoomOfTheStub() {
        assertThat(DRAFT.note(new ClaimId(1), " see letter ").claims().get(0).stubNote())
                .isEqualTo("see letter");
        assertThatThrownBy(() -> DRAFT.note(new ClaimId(1), "x".repeat(121)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("has 121");
    }

    @Test
    void reckonsInvoicesThenTheCreditsTheyNeed() {
        DraftClaim claim = claim(1, 11, 12)
                .plus(List.of(DraftLine.credit(new InvoiceId(91)), DraftLine.credit(new InvoiceId(92))));
        var invoices = Map.of(
                new InvoiceId(11), invoice(11, "800", "2026-11-01", "2026-12-01", "0", null),
                new InvoiceId(12), invoice(12, "300", "2026-11-01", "2026-12-05", "0", null));
        var credits = Map.of(
                new InvoiceId(91), openCredit(91, "250", "2026-10-01"),
                new InvoiceId(92), openCredit(92, "900", "2026-10-02"));
        assertThatThrownBy(() -> Reckoning.of(claim, invoices, credits, CHECK_DATE, 0))
                .hasMessageContaining("no check can be written for zero");
        List<ClaimLine> lines = Reckoning.of(claim.without(ids(92)), invoices, credits, CHECK_DATE, 0);
        assertThat(lines)
                .extracting(l -> l.kind() + " " + l.gross() + " " + l.credit() + " " + l.cash())
                .containsExactly(
                        "INVOICE 800.00 250.00 550.00", "INVOICE 300.00 0.00 300.00", "CREDIT 250.00 250.00 0.00");
        assertThat(Reckoning.of(claim(1, 11).each(l -> l.paying(usd("100"))), invoices, credits, CHECK_DATE, 0))
                .singleElement()
                .satisfies(l -> assertThat(l.gross()).isEqualTo(usd("100")));
        assertThatThrownBy(() -> Reckoning.of(claim(1, 99), invoices, credits, CHECK_DATE, 0))
                .hasMessageContaining("not open any more");
    }
}
