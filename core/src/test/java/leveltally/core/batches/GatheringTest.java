package leveltally.core.batches;

import static leveltally.core.Cases.CHECK_DATE;
import static leveltally.core.Cases.USD;
import static leveltally.core.Cases.day;
import static leveltally.core.Cases.invoice;
import static leveltally.core.Cases.openCredit;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.LongStream;
import leveltally.core.Refusal;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.selection.Candidate;
import leveltally.core.selection.CashWay;
import leveltally.core.selection.ClaimOrder;
import leveltally.core.selection.CreditCandidate;
import leveltally.core.selection.Criteria;
import leveltally.core.selection.Filters;
import leveltally.core.selection.Marks;
import leveltally.core.selection.Payee;
import leveltally.core.selection.Paying;
import leveltally.core.selection.Selection;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.Reach;
import leveltally.core.vendors.VendorId;
import org.junit.jupiter.api.Test;

/** Gathering again, and steps undone in their order. */
class GatheringTest {
    private static final Payee PAYEE = new Payee(
            new VendorId(7),
            "V7",
            "Bollard",
            "Yard",
            3,
            PaymentMethod.CHECK,
            null,
            70,
            "Bollard",
            "",
            new Reach(true, BankDetails.Kind.ROUTED, true));

    private static Candidate candidate(long id) {
        return new Candidate(invoice(id, "100", "2026-10-20", "2026-11-10", "0", null), PAYEE, false, null, null);
    }

    private static Selection select(boolean credits, long... ids) {
        Paying paying =
                new Paying(credits, Paying.Grouping.PAYEE, ClaimOrder.PAYEE, null, null, CashWay.STOP_AT_THE_LINE);
        Criteria criteria = new Criteria(
                USD, PaymentMethod.CHECK, CHECK_DATE, CHECK_DATE, day("2026-11-20"), null, 0, Filters.NONE, paying);
        return Selection.of(
                criteria,
                LongStream.of(ids).mapToObj(GatheringTest::candidate).toList(),
                List.of(new CreditCandidate(openCredit(91, "30", "2026-10-01"), PAYEE.vendor(), 70, null, null)),
                Marks.NONE);
    }

    private static DraftClaim claim(long id, DraftLine... lines) {
        return new DraftClaim(new ClaimId(id), PAYEE.vendor(), 70, false, "", List.of(lines));
    }

    private static DraftLine line(long id, boolean byHand) {
        return DraftLine.invoice(new InvoiceId(id), byHand, false);
    }

    @Test
    void namesWhatCameAndWentAndLeavesWhatWasDoneByHand() {
        Draft draft = new Draft(List.of(claim(1, line(11, false), line(12, true), line(13, false))));
        Selection now = select(true, 13, 14);
        Gathering difference = Gathering.of(draft, now);
        assertThat(difference.added())
                .extracting(row -> row.candidate().invoice().id().value())
                .containsExactly(14L);
        assertThat(difference.removed())
                .containsExactly(new Gathering.Removed(new InvoiceId(11), "the criteria do not ask for it any more"));
        Draft after = difference.applyTo(draft, now);
        assertThat(after.claims()).singleElement().satisfies(claim -> {
            assertThat(claim.invoices()).extracting(InvoiceId::value).containsExactly(12L, 13L, 14L);
            assertThat(claim.credits()).extracting(InvoiceId::value).containsExactly(91L);
        });
        assertThat(Gathering.of(after, now).isEmpty()).isTrue();
    }

    /** Any edits, undone one after the other by swapping what each changed, lead back to the draft they began with. */
    @Test
    void stepsUndoneInTheirOrderLeadBack() {
        Random random = new Random(4);
        for (int round = 0; round < 200; round++) {
            Draft start = new Draft(List.of(
                    claim(1, line(1, false), line(2, false), line(3, false)),
                    claim(2, line(4, false), line(5, false))));
            Draft now = start;
            List<List<List<DraftClaim>>> steps = new ArrayList<>();
            long id = 100;
            for (int i = 0; i < 12; i++) {
                Draft next = edited(now, random);
                List<DraftClaim> claims = new ArrayList<>();
                for (DraftClaim claim : next.claims()) {
                    claims.add(claim.id() == null ? claim.identified(new ClaimId(id++)) : claim);
                }
                next = new Draft(claims);
                List<DraftClaim> before = new ArrayList<>(now.claims());
                before.removeAll(next.claims());
                List<DraftClaim> after = new ArrayList<>(next.claims());
                after.removeAll(now.claims());
                steps.add(List.of(before, after));
                now = next;
            }
            for (int i = steps.size() - 1; i >= 0; i--) {
                now = now.swap(steps.get(i).get(1), steps.get(i).get(0));
            }
            assertThat(Set.copyOf(now.claims())).isEqualTo(Set.copyOf(start.claims()));
        }
    }

    private static Draft edited(Draft draft, Random random) {
        InvoiceId one = new InvoiceId(1 + random.nextInt(6));
        InvoiceId two = new InvoiceId(1 + random.nextInt(6));
        try {
            return switch (random.nextInt(7)) {
                case 0 -> draft.takeOut(Set.of(one));
                case 1 -> draft.pay(one, usd("10"));
                case 2 -> draft.payAlone(one);
                case 3 -> draft.split(Set.of(one));
                case 4 -> draft.join(new java.util.HashSet<>(List.of(one, two)));
                case 5 -> draft.show(Set.of(one), random.nextBoolean());
                default ->
                    draft.claims().stream().noneMatch(claim -> claim.holds(one))
                            ? draft.add(
                                    List.of(new Draft.Addition(PAYEE.vendor(), 70, line(one.value(), true))),
                                    Paying.Grouping.PAYEE)
                            : draft;
            };
        } catch (Refusal refused) {
            return draft;
        }
    }
}
