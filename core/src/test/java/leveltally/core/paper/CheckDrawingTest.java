package leveltally.core.paper;

import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.money.Money;
import org.junit.jupiter.api.Test;

class CheckDrawingTest {

    /** For the printer. */
    private static List<Page> pages(CheckText text, Paper paper) {
        List<Page> pages = new ArrayList<>(
                List.of(CheckDrawing.forThePrinter(text, StandardLayouts.LETTER, paper, null, PaperCases.HALF_EM)));
        pages.addAll(CheckDrawing.advice(text, StandardLayouts.LETTER, PaperCases.HALF_EM));
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
        Page printed = pages(PaperCases.text("Bollard", 1, "1225.00"), PaperCases.BLANK)
                .get(0);
        assertThat(hasMicr(printed)).isTrue();
        assertThat(says(printed, "NOT A CHECK")).isFalse();
        Page seen = CheckDrawing.toLookAt(
                PaperCases.text("Bollard", 1, "1225.00"), StandardLayouts.LETTER, PaperCases.HALF_EM);
        assertThat(hasMicr(seen)).isFalse();
        assertThat(says(seen, "NOT A CHECK")).isTrue();
    }

    @Test
    void numberedStockHasBothAlready() {
        Page printed = pages(PaperCases.text("Bollard", 1, "1225.00"), new Paper.Numbered())
                .get(0);
        assertThat(hasMicr(printed)).isFalse();
        assertThat(says(printed, "41237")).isFalse();
        assertThat(says(printed, "NOT A CHECK")).isFalse();
    }

    @Test
    void theStubOfNumberedStockNamesTheNumberWhereTheLayoutSaysSo() {
        CheckLayout before = StandardLayouts.LETTER;
        Map<Part, List<Block>> blocks = new HashMap<>(before.blocks());
        List<Block> stub = new ArrayList<>(before.on(Part.STUB));
        stub.add(new Block(Says.NUMBER, Area.ofPoints(340, 6, 60, 13), Face.MONO, 9, Box.Align.LEFT, ""));
        blocks.put(Part.STUB, stub);
        CheckLayout layout = new CheckLayout(
                before.page(), before.place(), before.checkHeight(), 1, before.dates(), blocks, before.columns());
        Page page = CheckDrawing.forThePrinter(
                PaperCases.text("Bollard", 1, "1225.00"), layout, new Paper.Numbered(), null, PaperCases.HALF_EM);
        assertThat(page.boxes().stream()
                        .filter(box -> box instanceof Box.Text t && t.text().equals("41237"))
                        .map(box -> ((Box.Text) box).y() > 252))
                .containsExactly(true);
    }

    @Test
    void everyLineStandsSomewhereAndOverflowGoesToPlainPaper() {
        List<Page> pages = pages(PaperCases.text("Sandpiper", 45, "12.50"), PaperCases.BLANK);
        assertThat(pages).hasSize(2);
        assertThat(hasMicr(pages.get(1))).isFalse();
        for (int i = 0; i < 45; i++) {
            String reference = "R-" + i;
            assertThat(pages.stream().anyMatch(page -> says(page, reference)))
                    .as(reference)
                    .isTrue();
        }
        int onStub = 15;
        assertThat(says(pages.get(0), "and " + (45 - onStub) + " more on the remittance advice"))
                .isTrue();
    }

    @Test
    void longWordsTakeASecondLineAndAreNeverCut() {
        // longer than any amount that can be typed
        Money amount = Money.ofMinor(77_777_777_777_777L, "USD");
        Page page =
                pages(PaperCases.text("Bollard", 1, amount), PaperCases.BLANK).get(0);
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
        for (Page page : pages(PaperCases.text("Sandpiper", 45, "12.50"), PaperCases.BLANK)) {
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
        assertThatThrownBy(() -> pages(PaperCases.text("Snow ☃ Works", 1, "10"), PaperCases.BLANK))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("☃");
    }

    @Test
    void rejectsANameTooLongForItsPlace() {
        assertThatThrownBy(() -> pages(PaperCases.text("x".repeat(200), 1, "10"), PaperCases.BLANK))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("does not fit");
    }

    @Test
    void everythingMovesByThePrintersOffsetTheMicrLineToo() {
        Page page = pages(PaperCases.text("Bollard", 1, "1225.00"), PaperCases.BLANK)
                .get(0);
        Page moved = page.moved(new Alignment(-4, 15));
        double right = -0.4 / 25.4 * 72;
        double down = 1.5 / 25.4 * 72;
        assertThat(moved.boxes()).hasSameSizeAs(page.boxes());
        for (int i = 0; i < page.boxes().size(); i++) {
            if (page.boxes().get(i) instanceof Box.Text was && moved.boxes().get(i) instanceof Box.Text is) {
                assertThat(is.x() - was.x()).isCloseTo(right, within(1e-9));
                assertThat(is.y() - was.y()).isCloseTo(down, within(1e-9));
            }
        }
        Box.Bars before = bars(page);
        Box.Bars after = bars(moved);
        assertThat(after.bars().get(0).x() - before.bars().get(0).x()).isCloseTo(right, within(1e-9));
        assertThat(page.moved(Alignment.NONE)).isSameAs(page);
        assertThatThrownBy(() -> new Alignment(0, 101)).hasMessageContaining("a centimetre at most");
    }

    private static Box.Bars bars(Page page) {
        return page.boxes().stream()
                .filter(Box.Bars.class::isInstance)
                .map(Box.Bars.class::cast)
                .findFirst()
                .orElseThrow();
    }

    private static List<Box.Drawn> drawn(Page page) {
        return page.boxes().stream()
                .filter(box -> box instanceof Box.Drawn)
                .map(box -> (Box.Drawn) box)
                .toList();
    }

    private static long linesToSignOn(Page page) {
        return page.boxes().stream()
                .filter(box -> box instanceof Box.Rule rule && rule.width() == 0.6)
                .count();
    }

    /** A signature is on what the printer gets, up to its limit, and on nothing that is looked at. */
    @Test
    void aSignatureGoesToThePrinterOnlyAndUpToItsLimit() {
        Signature signature = new Signature(new Picture(7, 300, 100), usd("5000.00"));
        CheckText below = PaperCases.text("Bollard", 1, "5000.00");
        CheckText above = PaperCases.text("Bollard", 1, "5000.01");
        Page signed = CheckDrawing.forThePrinter(
                below, StandardLayouts.LETTER, PaperCases.BLANK, signature, PaperCases.HALF_EM);
        assertThat(drawn(signed)).hasSize(1).first().satisfies(box -> {
            assertThat(box.picture()).isEqualTo(7);
            // three to one, on its line
            assertThat(box.width()).isCloseTo(3 * box.height(), within(0.001));
            assertThat(box.y() + box.height()).isCloseTo(168 + 24, within(0.02));
        });
        assertThat(drawn(CheckDrawing.forThePrinter(
                        above, StandardLayouts.LETTER, PaperCases.BLANK, signature, PaperCases.HALF_EM)))
                .isEmpty();
        assertThat(drawn(CheckDrawing.toLookAt(below, StandardLayouts.LETTER, PaperCases.HALF_EM)))
                .isEmpty();
    }

    @Test
    void aSecondLineToSignOnIsThereAboveTheAmountOnly() {
        Money limit = usd("10000.00");
        CheckText at = PaperCases.with(PaperCases.text("Bollard", 1, "10000.00"), null, limit);
        CheckText above = PaperCases.with(PaperCases.text("Bollard", 1, "10000.01"), null, limit);
        assertThat(linesToSignOn(pages(at, PaperCases.BLANK).get(0))).isEqualTo(1);
        assertThat(linesToSignOn(pages(above, PaperCases.BLANK).get(0))).isEqualTo(2);
        CheckLayout without = without(Says.SECOND_SIGNATURE);
        assertThatThrownBy(() -> CheckDrawing.toLookAt(above, without, PaperCases.HALF_EM))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("no line for the second");
        assertThat(LayoutCheck.of(without, List.of(at, above), PaperCases.HALF_EM))
                .extracting(Finding::words)
                .containsExactly("Two people sign checks above 10,000.00: the second signature line is missing.");
        assertThat(LayoutCheck.of(without, List.of(at), PaperCases.HALF_EM)).isEmpty();
    }

    private static CheckLayout without(Says says) {
        CheckLayout of = StandardLayouts.LETTER;
        Map<Part, List<Block>> blocks = new HashMap<>();
        for (Part part : Part.values()) {
            blocks.put(
                    part,
                    of.on(part).stream().filter(block -> block.says() != says).toList());
        }
        return new CheckLayout(of.page(), of.place(), of.checkHeight(), of.stubs(), of.dates(), blocks, of.columns());
    }

    /** As large as its place allows, at its proportion, and where the block says. */
    @Test
    void aLogoKeepsItsProportion() {
        CheckLayout of = StandardLayouts.LETTER;
        Map<Part, List<Block>> blocks = new HashMap<>();
        for (Part part : Part.values()) {
            blocks.put(part, of.on(part));
        }
        List<Block> check = new ArrayList<>(of.on(Part.CHECK));
        check.add(new Block(Says.LOGO, Area.ofPoints(300, 50, 80, 20), Face.TEXT, 9, Box.Align.RIGHT, ""));
        blocks.put(Part.CHECK, check);
        CheckLayout layout =
                new CheckLayout(of.page(), of.place(), of.checkHeight(), of.stubs(), of.dates(), blocks, of.columns());
        CheckText text = PaperCases.with(PaperCases.text("Bollard", 1, "10.00"), new Picture(3, 50, 25), null);
        assertThat(drawn(CheckDrawing.toLookAt(text, layout, PaperCases.HALF_EM)))
                .hasSize(1)
                .first()
                .satisfies(box -> {
                    assertThat(box.width()).isCloseTo(40, within(0.01));
                    assertThat(box.height()).isCloseTo(20, within(0.01));
                    assertThat(box.x()).isCloseTo(340, within(0.01));
                });
    }
}
