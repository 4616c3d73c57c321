package leveltally.core.approval;

import static leveltally.core.Cases.CHECK_DATE;
import static leveltally.core.Cases.USD;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.ClaimLine;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountLine;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.money.Money;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.VendorId;
import org.junit.jupiter.api.Test;

class ClaimDigestTest {
    private static ClaimLine line(long invoice, String gross, String discount) {
        return new ClaimLine.Invoice(new InvoiceId(invoice), "R", usd(gross), usd(discount), Money.zero(USD));
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

    private static ClaimLine direct(String reference, AccountLine... accounts) {
        return new ClaimLine.Direct(reference, List.of(accounts));
    }

    @Test
    void coversWhatEveryKindOfLineIsFor() {
        var rent = new AccountLine(new AccountId(56), "", usd("90"));
        var yard = new AccountLine(new AccountId(57), "J7", usd("10"));
        ClaimLine paid = line(1, "100", "2");
        List<ClaimLine> all = List.of(
                paid,
                new ClaimLine.Kept(paid, new ClaimId(5)),
                new ClaimLine.Kept(paid, new ClaimId(6)),
                new ClaimLine.Kept(line(2, "100", "2"), new ClaimId(5)),
                new ClaimLine.Prepayment("PO 1", new AccountId(14), usd("98"), null),
                new ClaimLine.Prepayment("PO 2", new AccountId(14), usd("98"), null),
                new ClaimLine.Prepayment("PO 1", new AccountId(15), usd("98"), null),
                direct("Rent", rent, yard),
                direct("Rent", new AccountLine(new AccountId(56), "", usd("100"))),
                direct("Rent", rent, new AccountLine(new AccountId(57), "J8", usd("10"))),
                direct("Rent", rent, new AccountLine(new AccountId(58), "J7", usd("10"))),
                direct("Rent,", rent, yard));
        Set<String> seen = new HashSet<>();
        all.forEach(line -> seen.add(digest("B", List.of("x"), List.of(line), CHECK_DATE, 1)));
        assertThat(seen).hasSameSizeAs(all);
        List<ClaimLine> turned = new ArrayList<>(all);
        Collections.reverse(turned);
        assertThat(digest("B", List.of("x"), turned, CHECK_DATE, 1))
                .isEqualTo(digest("B", List.of("x"), all, CHECK_DATE, 1));
    }

    private static final String BANK = "b".repeat(64);

    private static String withBank(String key) {
        List<ClaimLine> lines = List.of(line(1, "10", "0"));
        Claim claim = new Claim(new ClaimId(1), new VendorId(1), new RemitTo("B", List.of("x"), key), usd("10"), lines);
        return ClaimDigest.of(claim, CHECK_DATE, new BankAccountId(1), PaymentMethod.CHECK)
                .hex();
    }

    @Test
    void coversTheBankDetailsAndKeepsTheFormOfClaimsWithout() {
        assertThat(withBank("")).isEqualTo(digest("B", List.of("x"), List.of(line(1, "10", "0")), CHECK_DATE, 1));
        assertThat(Set.of(withBank(""), withBank(BANK), withBank("c" + BANK.substring(1))))
                .hasSize(3);
    }

    /** One content of a claim, field by field, so that each can be changed alone. */
    private record Content(List<Object> fields, List<List<Long>> lines) {
        String digest() {
            List<ClaimLine> claimLines = lines.stream()
                    .<ClaimLine>map(l -> l.get(4) == 0
                            ? new ClaimLine.Invoice(
                                    new InvoiceId(l.get(0)),
                                    "R" + l.get(0),
                                    Money.ofMinor(l.get(1), USD),
                                    Money.ofMinor(l.get(2), USD),
                                    Money.ofMinor(l.get(3), USD))
                            : new ClaimLine.Credit(
                                    new InvoiceId(l.get(0)), "R" + l.get(0), Money.ofMinor(l.get(1), USD)))
                    .toList();
            Money amount = Money.sum(claimLines.stream().map(ClaimLine::cash).toList(), USD);
            RemitTo remitTo = new RemitTo(
                    fields.get(0).toString(),
                    List.of(fields.get(1).toString().split("/")),
                    fields.get(2).toString());
            Claim claim = new Claim(new ClaimId(1), new VendorId(1), remitTo, amount, claimLines);
            return ClaimDigest.of(
                            claim,
                            CHECK_DATE.plusDays((Integer) fields.get(3)),
                            new BankAccountId((Integer) fields.get(4)),
                            PaymentMethod.values()[(Integer) fields.get(5)])
                    .hex();
        }
    }

    private static Content random(Random random) {
        List<List<Long>> lines = new ArrayList<>();
        int count = 1 + random.nextInt(5);
        for (int i = 0; i < count; i++) {
            long gross = 100 + random.nextInt(100_000);
            lines.add(new ArrayList<>(
                    List.of((long) i + 1, gross, (long) random.nextInt(40), (long) random.nextInt(50), 0L)));
        }
        return new Content(
                new ArrayList<>(List.of(
                        "P" + random.nextInt(100),
                        random.nextInt(9) + " Quay/Town " + random.nextInt(9),
                        random.nextBoolean() ? "" : String.valueOf(random.nextInt(1_000)),
                        random.nextInt(30),
                        random.nextInt(5),
                        random.nextInt(2))),
                lines);
    }

    /** Any change of content changes the digest; no order of lines does. */
    @Test
    void everyChangeOfContentShowsAndNoOrderDoes() {
        Random random = new Random(4);
        for (int run = 0; run < 400; run++) {
            Content content = random(random);
            String before = content.digest();
            Content turned = new Content(content.fields(), new ArrayList<>(content.lines()));
            Collections.shuffle(turned.lines(), random);
            assertThat(turned.digest()).isEqualTo(before);
            List<String> seen = new ArrayList<>(List.of(before));
            for (int field = 0; field < content.fields().size(); field++) {
                Object was = content.fields().get(field);
                Object other = field == 5 ? (Object) (1 - (Integer) was) : was instanceof Integer n ? n + 1 : was + "x";
                content.fields().set(field, other);
                seen.add(content.digest());
                content.fields().set(field, was);
            }
            List<Long> line = content.lines().get(random.nextInt(content.lines().size()));
            for (int part = 0; part < 5; part++) {
                Long was = line.get(part);
                line.set(part, was + (part == 0 ? 100 : 1));
                seen.add(content.digest());
                line.set(part, was);
            }
            content.lines().add(List.of(99L, 1L, 0L, 0L, 0L));
            seen.add(content.digest());
            assertThat(new HashSet<>(seen)).hasSameSizeAs(seen);
        }
    }
}
