package leveltally.core.contacts;

import java.util.ArrayList;
import java.util.List;
import leveltally.core.paper.Box;
import leveltally.core.paper.Face;
import leveltally.core.paper.Measure;
import leveltally.core.paper.Page;
import leveltally.core.paper.PageSize;

/** A letter on one sheet, addressed for a window envelope. */
public final class LetterPage {
    private static final double LEFT = 64;
    private static final double TOP = 60;
    /** Where the window of an envelope shows the payee. */
    private static final double WINDOW = 150;

    private static final double BODY = 270;
    private static final double SIZE = 10.5;
    private static final double LEAD = 15;
    private static final double SMALLEST = 7;

    private LetterPage() {}

    /**
     * @param sender name and address; {@code to} payee and address
     * @param date in words
     */
    public static Page of(
            List<String> sender,
            List<String> to,
            String date,
            ContactLetter.Filled letter,
            PageSize size,
            Measure measure) {
        double width = size.width() * 72 / 25_400.0;
        double height = size.height() * 72 / 25_400.0;
        double room = width - 2 * LEFT;
        double most = height - BODY - TOP;
        double fitting = SIZE;
        List<String> lines = lines(letter.paragraphs(), fitting, room, measure);
        while (fitting > SMALLEST && lines.size() * LEAD * fitting / SIZE > most) {
            fitting -= 0.5;
            lines = lines(letter.paragraphs(), fitting, room, measure);
        }
        List<Box> boxes = new ArrayList<>();
        put(boxes, LEFT, TOP, SIZE - 1.5, LEAD - 2, sender, measure);
        put(boxes, LEFT, WINDOW, SIZE, LEAD, to, measure);
        boxes.add(text(width - LEFT, BODY - 46, Face.TEXT, SIZE, Box.Align.RIGHT, date, measure));
        boxes.add(text(LEFT, BODY - 20, Face.BOLD, SIZE, Box.Align.LEFT, letter.subject(), measure));
        put(boxes, LEFT, BODY + 6, fitting, LEAD * fitting / SIZE, lines, measure);
        return new Page(width, height, boxes);
    }

    private static void put(
            List<Box> boxes, double x, double top, double size, double lead, List<String> lines, Measure measure) {
        double y = top;
        for (String line : lines) {
            if (!line.isEmpty()) {
                boxes.add(text(x, y, Face.TEXT, size, Box.Align.LEFT, line, measure));
            }
            y += lead;
        }
    }

    private static Box.Text text(
            double x, double y, Face face, double size, Box.Align align, String words, Measure measure) {
        StringBuilder drawable = new StringBuilder();
        words.codePoints().forEach(point -> {
            String one = Character.toString(point);
            drawable.append(measure.missing(face, one).isEmpty() ? one : "?");
        });
        return new Box.Text(x, y, face, size, align, drawable.toString());
    }

    /** Paragraphs broken into lines that fit, an empty one between two. */
    static List<String> lines(List<String> paragraphs, double size, double room, Measure measure) {
        List<String> lines = new ArrayList<>();
        for (String paragraph : paragraphs) {
            if (!lines.isEmpty()) {
                lines.add("");
            }
            for (String typed : paragraph.split("\n")) {
                StringBuilder line = new StringBuilder();
                for (String word : typed.strip().split("\\s+")) {
                    String longer = line.isEmpty() ? word : line + " " + word;
                    if (!line.isEmpty() && measure.width(Face.TEXT, size, longer) > room) {
                        lines.add(line.toString());
                        line.setLength(0);
                        line.append(word);
                    } else {
                        line.setLength(0);
                        line.append(longer);
                    }
                }
                lines.add(line.toString());
            }
        }
        return lines;
    }
}
