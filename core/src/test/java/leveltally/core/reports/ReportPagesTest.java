package leveltally.core.reports;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import leveltally.core.paper.Box;
import leveltally.core.paper.Face;
import leveltally.core.paper.Measure;
import leveltally.core.paper.Page;
import leveltally.core.paper.PageSize;
import org.junit.jupiter.api.Test;

class ReportPagesTest {
    private static final Measure HALF_EM = new Measure() {
        @Override
        public double width(Face face, double size, String text) {
            return text.length() * size / 2;
        }

        @Override
        public String missing(Face face, String text) {
            return text.contains("漢") ? "漢" : "";
        }
    };
    private static final List<Report.Head> HEADS =
            List.of(new Report.Head("Reference", 3, false), new Report.Head("Paid", 1, true));

    private static List<Box.Text> texts(Page page) {
        return page.boxes().stream()
                .filter(box -> box instanceof Box.Text)
                .map(box -> (Box.Text) box)
                .toList();
    }

    private static List<String> words(Page page) {
        return texts(page).stream().map(Box.Text::text).toList();
    }

    @Test
    void everyRowStandsOnOnePageUnderItsHeadsAndInsideTheSheet() {
        List<Report.Line> lines = new ArrayList<>();
        for (int i = 0; i < 300; i++) {
            if (i % 7 == 0) {
                lines.add(Report.Line.group("Payee " + i, "10.00"));
            }
            lines.add(Report.Line.row("R-" + i, "1.00"));
        }
        lines.add(Report.Line.total("300 entries", "300.00"));
        List<Page> pages = ReportPages.of(
                new Report("What is paid", List.of("Operations"), HEADS, lines), PageSize.A4, "made today", HALF_EM);
        assertThat(pages).hasSizeGreaterThan(5);
        List<String> all = new ArrayList<>();
        for (int i = 0; i < pages.size(); i++) {
            Page page = pages.get(i);
            assertThat(words(page))
                    .contains("What is paid", "Reference", "made today", "page " + (i + 1) + " of " + pages.size());
            assertThat(texts(page)).allSatisfy(text -> assertThat(text.y()).isBetween(0.0, page.height() - 20));
            List<String> rows = words(page).stream()
                    .filter(word -> word.startsWith("R-") || word.startsWith("Payee"))
                    .toList();
            assertThat(rows.get(rows.size() - 1))
                    .as("no group alone at the end")
                    .startsWith("R-");
            all.addAll(rows.stream().filter(word -> word.startsWith("R-")).toList());
        }
        assertThat(all).hasSize(300).doesNotHaveDuplicates();
        assertThat(words(pages.get(pages.size() - 1))).contains("300 entries", "300.00");
    }

    @Test
    void whatDoesNotFitIsShortenedAndWhatCannotBeDrawnIsNamed() {
        Report report = new Report("List", List.of(), HEADS, List.of(Report.Line.row("漢 " + "x".repeat(400), "1.00")));
        Page page = ReportPages.of(report, PageSize.LETTER, "", HALF_EM).get(0);
        assertThat(words(page)).anyMatch(word -> word.startsWith("? xxx") && word.endsWith("…"));
        assertThatThrownBy(() -> new Report("List", List.of(), HEADS, List.of(Report.Line.row("one"))))
                .hasMessageContaining("1 cells under 2 heads");
    }
}
