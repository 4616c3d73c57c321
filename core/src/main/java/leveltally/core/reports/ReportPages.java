package leveltally.core.reports;

import java.util.ArrayList;
import java.util.List;
import leveltally.core.paper.Box;
import leveltally.core.paper.Face;
import leveltally.core.paper.Measure;
import leveltally.core.paper.Page;
import leveltally.core.paper.PageSize;

/** Lays a report out on pages: title and heads on each, a group never alone at the end of one. */
public final class ReportPages {
    private static final double MARGIN = 40;
    private static final double LINE = 14;
    private static final double SIZE = 8.5;
    private static final double SMALLEST = 6;
    private static final double GAP = 6;
    private static final double POINTS_A_MICROMETRE = 72 / 25_400.0;

    private final Report report;
    private final Measure measure;
    private final double width;
    private final double height;
    private final List<List<Box>> pages = new ArrayList<>();
    private double y;

    private ReportPages(Report report, PageSize size, Measure measure) {
        this.report = report;
        this.measure = measure;
        this.width = size.width() * POINTS_A_MICROMETRE;
        this.height = size.height() * POINTS_A_MICROMETRE;
    }

    /** @param foot stands at the foot of each page, beside its number */
    public static List<Page> of(Report report, PageSize size, String foot, Measure measure) {
        return new ReportPages(report, size, measure).all(foot);
    }

    private List<Page> all(String foot) {
        begin();
        for (int i = 0; i < report.lines().size(); i++) {
            Report.Line line = report.lines().get(i);
            // a group takes its first row along
            double needs = line.kind() == Report.Kind.GROUP ? 3 * LINE : LINE;
            if (y + needs > height - MARGIN - LINE) {
                begin();
            }
            draw(line);
        }
        List<Page> done = new ArrayList<>();
        for (int i = 0; i < pages.size(); i++) {
            List<Box> boxes = pages.get(i);
            double base = height - MARGIN + 8;
            boxes.add(text(MARGIN, base, Face.TEXT, 7.5, Box.Align.LEFT, foot, width - 3 * MARGIN));
            String page = "page " + (i + 1) + " of " + pages.size();
            boxes.add(text(width - MARGIN, base, Face.TEXT, 7.5, Box.Align.RIGHT, page, 2 * MARGIN));
            done.add(new Page(width, height, boxes));
        }
        return done;
    }

    private void begin() {
        boolean first = pages.isEmpty();
        pages.add(new ArrayList<>());
        y = MARGIN + 12;
        put(MARGIN, Face.BOLD, 13, Box.Align.LEFT, report.title(), width - 2 * MARGIN);
        y += 6;
        if (first) {
            for (String fact : report.facts()) {
                y += 12;
                put(MARGIN, Face.TEXT, 9, Box.Align.LEFT, fact, width - 2 * MARGIN);
            }
        }
        y += LINE + 4;
        cells(report.heads().stream().map(Report.Head::title).toList(), Face.BOLD);
        rule(y + 4);
        y += LINE + 2;
    }

    private void draw(Report.Line line) {
        switch (line.kind()) {
            case GROUP -> {
                y += 4;
                put(MARGIN, Face.BOLD, SIZE + 0.5, Box.Align.LEFT, line.cells().get(0), (width - 2 * MARGIN) * 0.7);
                if (line.cells().size() > 1) {
                    put(
                            width - MARGIN,
                            Face.TEXT,
                            SIZE,
                            Box.Align.RIGHT,
                            line.cells().get(1),
                            (width - 2 * MARGIN) * 0.3 - GAP);
                }
            }
            case ROW -> cells(line.cells(), Face.TEXT);
            case TOTAL -> {
                rule(y - LINE + 4);
                cells(line.cells(), Face.BOLD);
            }
        }
        y += LINE;
    }

    private void cells(List<String> cells, Face face) {
        double room = width - 2 * MARGIN;
        int shares = report.heads().stream().mapToInt(Report.Head::share).sum();
        double x = MARGIN;
        for (int i = 0; i < cells.size(); i++) {
            Report.Head head = report.heads().get(i);
            double wide = room * head.share() / shares;
            put(
                    head.right() ? x + wide : x,
                    face,
                    SIZE,
                    head.right() ? Box.Align.RIGHT : Box.Align.LEFT,
                    cells.get(i),
                    wide - GAP);
            x += wide;
        }
    }

    private void rule(double at) {
        boxes().add(new Box.Rule(MARGIN, at, width - MARGIN, at, 0.5, false));
    }

    private List<Box> boxes() {
        return pages.get(pages.size() - 1);
    }

    private void put(double x, Face face, double size, Box.Align align, String words, double room) {
        if (!words.isEmpty()) {
            boxes().add(text(x, y, face, size, align, words, room));
        }
    }

    /** What does not fit shrinks, and loses its end below a readable size: a list is read beside the screen, not signed. */
    private Box.Text text(double x, double base, Face face, double size, Box.Align align, String raw, double room) {
        StringBuilder drawable = new StringBuilder();
        raw.replaceAll("\\p{Cntrl}", " ").codePoints().forEach(point -> {
            String one = Character.toString(point);
            drawable.append(measure.missing(face, one).isEmpty() ? one : "?");
        });
        String words = drawable.toString();
        double fitting = size;
        while (fitting > SMALLEST && measure.width(face, fitting, words) > room) {
            fitting -= 0.5;
        }
        while (words.length() > 1 && measure.width(face, fitting, words) > room) {
            words = words.substring(0, words.length() - 2) + "…";
        }
        return new Box.Text(x, base, face, fitting, align, words);
    }
}
