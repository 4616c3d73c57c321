package leveltally.core.printing;

import static leveltally.core.Cases.CHECK_DATE;
import static leveltally.core.Cases.USD;
import static leveltally.core.Cases.day;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.ClaimLine;
import leveltally.core.batches.Stub;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.money.Money;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.VendorId;
import org.junit.jupiter.api.Test;

class CheckLayoutTest {
    /** Half an em a character, and no glyph for the snowman. */
    private static final Measure HALF_EM = new Measure() {
        @Override
        public double width(Face face, double size, String text) {
            return text.length() * size / 2;
        }

        @Override
        public String missing(Face face, String text) {
            return text.contains("☃") ? "☃" : "";
        }
    };

    private static final Paper BLANK =
            new Paper.Blank(MicrPattern.read("C########C|KC"), new RoutingNumber("990044105"), "004417720931");

    private static CheckText text(String payee, int lines, String amount) {
        return text(payee, lines, usd(amount));
    }

    private static CheckText text(String payee, int lines, Money amount) {
        List<ClaimLine> paid = new ArrayList<>();
        Map<InvoiceId, LocalDate> dates = new HashMap<>();
        for (int i = 0; i < lines; i++) {
            dates.put(new InvoiceId(i), day("2026-11-01"));
            paid.add(new ClaimLine.Invoice(new InvoiceId(i), "R-" + i, amount, usd("0"), usd("0")));
        }
        Money total = Money.sum(paid.stream().map(ClaimLine::cash).toList(), USD);
        Claim claim = new Claim(new ClaimId(1), new VendorId(1), new RemitTo(payee, List.of("1 Quay")), total, paid);
        var payer =
                new CheckText.Payer("Marrow Bay Ferries", List.of("4 Ropewalk Quay"), "Skerrow Trust", "dollars", "");
        return CheckText.of(payer, claim, CHECK_DATE, 41237L, Stub.of(paid, dates, Set.of(), ""));
    }

    /** For the printer. */
    private static List<Page> pages(CheckText text, Paper paper) {
        List<Page> pages = new ArrayList<>(List.of(CheckLayout.forThePrinter(text, CheckForm.LETTER, paper, HALF_EM)));
        pages.addAll(CheckLayout.advice(text, CheckForm.LETTER, HALF_EM));
        return pages;
    }

    private static boolean says(Page page, String words) {
        return page.boxes().stream()
                .anyMatch(box -> box instanceof Box.Text t && t.text().equals(words));
    }

    private static boolean hasMicr(Page page) {
        return page.boxes().stream().anyMatch(box -> box instanceof Box.Bars);
    }

    @Test
    void onlyThePrinterGetsNumberAndMicr() {
        Page printed = pages(text("Bollard", 1, "1225.00"), BLANK).get(0);
        assertThat(hasMicr(printed)).isTrue();
        assertThat(says(printed, "NOT A CHECK")).isFalse();
        Page seen = CheckLayout.toLookAt(text("Bollard", 1, "1225.00"), CheckForm.LETTER, HALF_EM);
        assertThat(hasMicr(seen)).isFalse();
        assertThat(says(seen, "NOT A CHECK")).isTrue();
    }

    @Test
    void numberedStockHasBothAlready() {
        Page printed =
                pages(text("Bollard", 1, "1225.00"), new Paper.Numbered()).get(0);
        assertThat(hasMicr(printed)).isFalse();
        assertThat(says(printed, "41237")).isFalse();
        assertThat(says(printed, "NOT A CHECK")).isFalse();
    }

    @Test
    void everyLineStandsSomewhereAndOverflowGoesToPlainPaper() {
        List<Page> pages = pages(text("Sandpiper", 45, "12.50"), BLANK);
        assertThat(pages).hasSize(2);
        assertThat(hasMicr(pages.get(1))).isFalse();
        for (int i = 0; i < 45; i++) {
            String reference = "R-" + i;
            assertThat(pages.stream().anyMatch(page -> says(page, reference)))
                    .as(reference)
                    .isTrue();
        }
        int onStub = CheckForm.LETTER.linesPerStub();
        assertThat(says(pages.get(0), "and " + (45 - onStub) + " more on the remittance advice"))
                .isTrue();
    }

    @Test
    void longWordsTakeASecondLineAndAreNeverCut() {
        // longer than any amount that can be typed
        Money amount = Money.ofMinor(77_777_777_777_777L, "USD");
        Page page = pages(text("Bollard", 1, amount), BLANK).get(0);
        String spelled = AmountInWords.of(amount, "dollars");
        String joined = page.boxes().stream()
                .filter(box -> box instanceof Box.Text t
                        && spelled.contains(t.text())
                        && t.text().length() > 20)
                .map(box -> ((Box.Text) box).text())
                .reduce((a, b) -> a + " " + b)
                .orElseThrow();
        assertThat(joined).isEqualTo(spelled);
    }

    @Test
    void boxesStayOnThePage() {
        for (Page page : pages(text("Sandpiper", 45, "12.50"), BLANK)) {
            assertThat(page.boxes()).allSatisfy(box -> {
                if (box instanceof Box.Text t) {
                    assertThat(t.y()).isBetween(0.0, page.height());
                    assertThat(t.x()).isBetween(0.0, page.width());
                }
            });
        }
    }

    @Test
    void rejectsACharacterTheFaceLacks() {
        assertThatThrownBy(() -> pages(text("Snow ☃ Works", 1, "10"), BLANK))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("☃");
    }

    @Test
    void rejectsANameTooLongForItsPlace() {
        assertThatThrownBy(() -> pages(text("x".repeat(200), 1, "10"), BLANK))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("does not fit");
    }
}
