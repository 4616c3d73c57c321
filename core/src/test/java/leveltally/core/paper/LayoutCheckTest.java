package leveltally.core.paper;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;
import leveltally.core.money.Money;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

class LayoutCheckTest {
    private static final List<CheckText> SAMPLES =
            List.of(PaperCases.text("Bollard Foundry", 3, "1225.00"), PaperCases.text("Sandpiper", 45, "99999999.99"));

    private static List<Finding> findings(CheckLayout layout) {
        return LayoutCheck.of(layout, SAMPLES, PaperCases.HALF_EM);
    }

    static Stream<Arguments> sheets() {
        List<Arguments> all = new ArrayList<>();
        for (PageSize size : List.of(PageSize.LETTER, PageSize.A4)) {
            for (Place place : Place.values()) {
                for (int stubs = 0; stubs <= 2; stubs++) {
                    all.add(Arguments.of(size, place, stubs));
                }
            }
        }
        return all.stream();
    }

    @ParameterizedTest
    @MethodSource("sheets")
    void aLayoutToBeginWithIsRight(PageSize size, Place place, int stubs) {
        assertThat(findings(StandardLayouts.of(size, place, stubs))).isEmpty();
    }

    /** Whatever the check says and wherever it stands on its sheet. */
    @ParameterizedTest
    @MethodSource("sheets")
    void nothingOverlapsOrLeavesItsPlaceAndTheTotalIsWhole(PageSize size, Place place, int stubs) {
        Random random = new Random(size.height() + 7L * place.ordinal() + stubs);
        CheckLayout layout = StandardLayouts.of(size, place, stubs);
        double bandTop = Area.points(layout.checkTop() + layout.checkHeight() - CheckLayout.CLEAR_BAND);
        double bandEnd = Area.points(layout.checkTop() + layout.checkHeight());
        for (int i = 0; i < 40; i++) {
            int lines = 1 + random.nextInt(60);
            CheckText text = PaperCases.text(
                    "Payee ".repeat(1 + random.nextInt(8)), lines, Money.ofMinor(1 + random.nextInt(9_999_999), "USD"));
            Page page = CheckDrawing.forThePrinter(text, layout, PaperCases.BLANK, null, PaperCases.HALF_EM);
            List<double[]> inked = texts(page);
            for (int a = 0; a < inked.size(); a++) {
                double[] one = inked.get(a);
                assertThat(one[0]).isGreaterThanOrEqualTo(18 - 0.01);
                assertThat(one[2]).isLessThanOrEqualTo(page.width() - 18 + 0.01);
                assertThat(one[3] <= bandTop || one[1] >= bandEnd).isTrue();
                for (int b = a + 1; b < inked.size(); b++) {
                    double[] other = inked.get(b);
                    boolean apart =
                            one[2] <= other[0] || other[2] <= one[0] || one[3] <= other[1] || other[3] <= one[1];
                    assertThat(apart).as(() -> page.boxes().toString()).isTrue();
                }
            }
            List<Page> advice = CheckDrawing.advice(text, layout, PaperCases.HALF_EM);
            long listed = Stream.concat(advice.stream(), Stream.of(page))
                    .flatMap(p -> p.boxes().stream())
                    .filter(box -> box instanceof Box.Text t && t.text().startsWith("R-"))
                    .map(box -> ((Box.Text) box).text())
                    .distinct()
                    .count();
            assertThat(listed).isEqualTo(lines);
        }
    }

    /** Left, top, right and bottom of each text. */
    private static List<double[]> texts(Page page) {
        List<double[]> all = new ArrayList<>();
        for (Box box : page.boxes()) {
            if (box instanceof Box.Text t) {
                double width = PaperCases.HALF_EM.width(t.face(), t.size(), t.text());
                double left =
                        t.x() - (t.align() == Box.Align.RIGHT ? width : t.align() == Box.Align.CENTER ? width / 2 : 0);
                all.add(new double[] {left, t.y() - t.size() * 0.75, left + width, t.y()});
            }
        }
        return all;
    }

    /** The standard, with one block of the check moved or changed. */
    private static CheckLayout with(Says says, java.util.function.UnaryOperator<Block> change) {
        CheckLayout before = StandardLayouts.LETTER;
        Map<Part, List<Block>> blocks = new HashMap<>(before.blocks());
        blocks.put(
                Part.CHECK,
                before.on(Part.CHECK).stream()
                        .map(block -> block.says() == says ? change.apply(block) : block)
                        .toList());
        return new CheckLayout(
                before.page(),
                before.place(),
                before.checkHeight(),
                before.stubs(),
                before.dates(),
                blocks,
                before.columns());
    }

    private static Block at(Block block, Area area) {
        return new Block(block.says(), area, block.face(), block.size(), block.align(), block.text());
    }

    private static CheckLayout moved(Says says, int x, int y) {
        return with(says, block -> {
            Area area = block.area();
            return at(block, new Area(area.x() + x, area.y() + y, area.width(), area.height()));
        });
    }

    private static List<String> words(CheckLayout layout) {
        return findings(layout).stream().map(Finding::words).toList();
    }

    @Test
    void everyFaultIsNamedAtItsBlock() {
        assertThat(words(moved(Says.DATE, 0, 14_000))).contains("It overlaps the amount.", "It overlaps the date.");
        assertThat(words(moved(Says.COMPANY, -8_000, 0)))
                .singleElement()
                .asString()
                .contains("6.35 mm stay free");
        assertThat(words(moved(Says.VALIDITY, 0, 2_000)))
                .singleElement()
                .asString()
                .contains("clear band");
        assertThat(words(with(
                        Says.PAYEE,
                        b -> at(
                                b,
                                new Area(
                                        b.area().x(),
                                        b.area().y(),
                                        9_000,
                                        b.area().height())))))
                .singleElement()
                .asString()
                .contains("“Bollard Foundry” does not fit");
        assertThat(words(with(
                        Says.WORDS,
                        b -> at(b, new Area(b.area().x(), b.area().y(), b.area().width(), 3_000)))))
                .anyMatch(said -> said.contains("are higher than its place"));
        Finding twice = findings(
                        with(Says.BANK, b -> new Block(Says.DATE, b.area(), b.face(), b.size(), b.align(), "")))
                .get(0);
        assertThat(twice.words()).isEqualTo("The date stands on the check twice.");
        assertThat(StandardLayouts.LETTER.on(Part.CHECK).get(twice.block()).says())
                .isEqualTo(Says.BANK);
    }

    @Test
    void whatACheckNeedsIsAskedFor() {
        CheckLayout before = StandardLayouts.LETTER;
        CheckLayout empty = new CheckLayout(
                before.page(), before.place(), 60_000, before.stubs(), before.dates(), Map.of(), before.columns());
        assertThat(words(empty))
                .contains(
                        "The amount is missing; without it this is no check.",
                        "The payee is missing; without it this is no check.",
                        "The advice needs a place for at least five lines.")
                .anyMatch(said -> said.contains("60.00 mm high"));
    }

    /** On the slip, and while a layout is made: a long name runs over its place, and nothing is refused or left away. */
    @Test
    void whatIsOnlyLookedAtIsNeverRefused() {
        String name = "A name of a hundred and twenty letters ".repeat(3);
        CheckText text = PaperCases.text(name, 60, "99999999.99");
        for (CheckLayout layout : List.of(StandardLayouts.slip(text.stub()), moved(Says.DATE, 0, 14_000))) {
            Page page = CheckDrawing.loosely(text, layout, PaperCases.HALF_EM);
            assertThat(page.boxes())
                    .anyMatch(box -> box instanceof Box.Text t && t.text().equals(name));
            assertThat(page.boxes())
                    .anyMatch(box -> box instanceof Box.Text t && t.text().equals("NOT A CHECK"));
            assertThat(page.boxes()).noneMatch(box -> box instanceof Box.Bars);
        }
        assertThat(CheckDrawing.loosely(text, StandardLayouts.slip(text.stub()), PaperCases.HALF_EM)
                        .boxes())
                .as("the slip lists every row")
                .anyMatch(box -> box instanceof Box.Text t && t.text().equals("R-59"));
    }

    @Test
    void millimetresAndEighthsOfAnInchAreExact() {
        assertThat(Area.micrometres(9)).isEqualTo(3_175);
        assertThat(Area.points(25_400)).isEqualTo(72);
    }
}
