package leveltally.core.paper;

import static leveltally.core.Cases.CHECK_DATE;
import static leveltally.core.Cases.USD;
import static leveltally.core.Cases.day;
import static leveltally.core.Cases.usd;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.ClaimLine;
import leveltally.core.batches.Stub;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.money.Money;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.VendorId;

/** Checks to lay out. */
final class PaperCases {
    private PaperCases() {}

    /** Half an em a character, and no glyph for the snowman. */
    static final Measure HALF_EM = new Measure() {
        @Override
        public double width(Face face, double size, String text) {
            return text.length() * size / 2;
        }

        @Override
        public String missing(Face face, String text) {
            return text.contains("☃") ? "☃" : "";
        }
    };

    static final Paper BLANK =
            new Paper.Blank(MicrPattern.read("C########C|KC"), new RoutingNumber("990044105"), "004417720931");

    private static final CheckText.Payer PAYER = new CheckText.Payer(
            "Marrow Bay Ferries", List.of("4 Ropewalk Quay"), "Skerrow Trust", "dollars", "", null, null);

    /** The same with a logo, and a limit above which two sign. */
    static CheckText with(CheckText text, Picture logo, Money secondAbove) {
        return text.withPayer(new CheckText.Payer(
                PAYER.company(), PAYER.address(), PAYER.bank(), PAYER.currencyWord(), "", logo, secondAbove));
    }

    static CheckText text(String payee, int lines, String amount) {
        return text(payee, lines, usd(amount));
    }

    static CheckText text(String payee, int lines, Money amount) {
        List<ClaimLine> paid = new ArrayList<>();
        Map<InvoiceId, LocalDate> dates = new HashMap<>();
        for (int i = 0; i < lines; i++) {
            dates.put(new InvoiceId(i), day("2026-11-01"));
            paid.add(new ClaimLine.Invoice(new InvoiceId(i), "R-" + i, amount, usd("0"), usd("0")));
        }
        Money total = Money.sum(paid.stream().map(ClaimLine::cash).toList(), USD);
        Claim claim = new Claim(new ClaimId(1), new VendorId(1), new RemitTo(payee, List.of("1 Quay")), total, paid);
        return CheckText.of(PAYER, claim, CHECK_DATE, 41237L, Stub.of(paid, dates, Set.of(), ""), null);
    }
}
