package leveltally.core.approval;

import static leveltally.core.Cases.CHECK_DATE;
import static leveltally.core.Cases.USD;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.ClaimLine;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.money.Money;
import leveltally.core.people.PersonId;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.VendorId;
import org.junit.jupiter.api.Test;

class ClaimDigestTest {
    private static ClaimLine line(long invoice, String gross, String discount) {
        Money cash = usd(gross).minus(usd(discount));
        return new ClaimLine(
                ClaimLine.Kind.INVOICE, new InvoiceId(invoice), "R", usd(gross), usd(discount), Money.zero(USD), cash);
    }

    private static String digest(
            String payee, List<String> address, List<ClaimLine> lines, LocalDate date, long account) {
        Money amount = Money.sum(lines.stream().map(ClaimLine::cash).toList(), USD);
        Claim claim = new Claim(new ClaimId(1), new VendorId(1), new RemitTo(payee, address), amount, lines);
        return ClaimDigest.of(claim, date, new BankAccountId(account), PaymentMethod.CHECK)
                .hex();
    }

    @Test
    void changesWithAnyContent() {
        List<ClaimLine> lines = List.of(line(1, "800", "16"), line(2, "300", "0"));
        Set<String> seen = new HashSet<>();
        seen.add(digest("Bollard", List.of("1 Quay", "Skerrow"), lines, CHECK_DATE, 1));
        seen.add(digest("Bollard ", List.of("1 Quay", "Skerrow"), lines, CHECK_DATE, 1));
        seen.add(digest("Bollard", List.of("1 Quay Skerrow"), lines, CHECK_DATE, 1));
        seen.add(digest("Bollard", List.of("1 Quay", "Skerrow"), lines, CHECK_DATE.plusDays(1), 1));
        seen.add(digest("Bollard", List.of("1 Quay", "Skerrow"), lines, CHECK_DATE, 2));
        seen.add(digest(
                "Bollard",
                List.of("1 Quay", "Skerrow"),
                List.of(line(1, "800", "0"), line(2, "300", "16")),
                CHECK_DATE,
                1));
        seen.add(digest(
                "Bollard",
                List.of("1 Quay", "Skerrow"),
                List.of(line(1, "800", "16"), line(3, "300", "0")),
                CHECK_DATE,
                1));
        assertThat(seen).hasSize(7);
    }

    @Test
    void doesNotChangeWithTheOrderOfLines() {
        List<ClaimLine> lines = List.of(line(1, "800", "16"), line(2, "300", "0"));
        List<ClaimLine> turned = List.of(lines.get(1), lines.get(0));
        assertThat(digest("B", List.of("x"), lines, CHECK_DATE, 1))
                .isEqualTo(digest("B", List.of("x"), turned, CHECK_DATE, 1));
    }

    @Test
    void rejectsOwnWorkAndASecondStep() {
        PersonId ines = new PersonId(1);
        Separation.check(ines, Set.of(new PersonId(2)), Set.of());
        assertThatThrownBy(() -> Separation.check(ines, Set.of(ines), Set.of())).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> Separation.check(ines, Set.of(), Set.of(ines))).isInstanceOf(Refusal.class);
    }
}
