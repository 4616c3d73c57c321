package leveltally.core.paper;

import java.util.ArrayList;
import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.ledger.RoutingNumber;

/**
 * The magnetic line of a check, set in E-13B: what stands in each of its positions, counted from the right edge.
 *
 * <p>Geometry after ISO 1004-1 and ANSI X9.100-160: the right side of position n lies 5/16 inch + (n − 1)/8 inch from the
 * right edge of the check. Amount 1–12 and position 13 stay empty; on-us 14–31; 32 empty; transit 33–43 with its symbols
 * at 33 and 43; 44 empty; auxiliary on-us from 45 leftwards. Characters are drawn on a grid of 0.013 inch, 7 cells wide and
 * 9 high; the line stands in the clear band at the bottom, its first digit 0.1875 inch above the lower edge.
 *
 * @param text positions 65 to 1, a space where nothing stands
 */
public record MicrLine(String text) {
    static final double PITCH = 0.125 * 72;
    static final double RIGHT_MARGIN = 5.0 / 16 * 72;
    static final double CELL = 0.013 * 72;
    static final double BASELINE_ABOVE_EDGE = 0.1875 * 72;
    private static final int ROWS = 9;
    private static final int POSITIONS = 65;
    private static final int ON_US = 14;
    private static final int ON_US_END = 31;
    private static final int TRANSIT = 33;
    private static final int AUXILIARY = 45;

    /** @throws Refusal when number or account do not fit their fields */
    public static MicrLine of(MicrPattern pattern, RoutingNumber routing, String accountNumber, long checkNumber) {
        char[] line = " ".repeat(POSITIONS).toCharArray();
        put(line, ON_US, ON_US_END, MicrPattern.filled(pattern.onUs(), accountNumber, checkNumber));
        put(line, TRANSIT, TRANSIT + 10, "A" + routing.digits() + "A");
        put(line, AUXILIARY, POSITIONS, MicrPattern.filled(pattern.auxiliary(), accountNumber, checkNumber));
        return new MicrLine(new String(line));
    }

    /** Sets a field with its last character at the rightmost position. */
    private static void put(char[] line, int rightmost, int leftmost, String field) {
        if (field.length() > leftmost - rightmost + 1) {
            throw Refusal.invalid(
                    "micr-field-too-long",
                    "“" + field + "” needs more than the " + (leftmost - rightmost + 1)
                            + " positions its field of the MICR line has. An administrator shortens the account's pattern.");
        }
        for (int i = 0; i < field.length(); i++) {
            line[POSITIONS - rightmost - (field.length() - 1 - i)] = field.charAt(i);
        }
    }

    public MicrLine {
        if (text.length() != POSITIONS) {
            throw new IllegalArgumentException("MICR: " + POSITIONS + " positions wanted, not " + text.length());
        }
        for (char c : text.toCharArray()) {
            if (c != ' ' && !MicrGlyphs.has(c)) {
                throw new IllegalArgumentException("MICR: E-13B has no character “" + c + "”");
            }
        }
    }

    /** What stands at a position, counted from the right edge from 1; a space for nothing. */
    public char at(int position) {
        return text.charAt(POSITIONS - position);
    }

    /**
     * The bars of the line.
     *
     * @param right x of the check's right edge; {@code bottom} y of its lower edge, in points
     */
    Box.Bars drawn(double right, double bottom) {
        List<Box.Bar> bars = new ArrayList<>();
        double baseline = bottom - BASELINE_ABOVE_EDGE;
        for (int position = 1; position <= POSITIONS; position++) {
            if (at(position) != ' ') {
                double edge = right - RIGHT_MARGIN - (position - 1) * PITCH;
                addGlyph(bars, MicrGlyphs.rows(at(position)), edge - 7 * CELL, baseline - ROWS * CELL);
            }
        }
        return new Box.Bars(bars);
    }

    /** Runs of cells that stand alike in rows below each other become one bar, so that no seam can show. */
    private static void addGlyph(List<Box.Bar> bars, List<String> rows, double left, double top) {
        boolean[][] done = new boolean[ROWS][7];
        for (int row = 0; row < ROWS; row++) {
            for (int column = 0; column < 7; column++) {
                if (filled(rows, row, column) && !done[row][column]) {
                    int width = runWidth(rows, done, row, column);
                    int height = runHeight(rows, row, column, width);
                    for (int r = row; r < row + height; r++) {
                        java.util.Arrays.fill(done[r], column, column + width, true);
                    }
                    bars.add(new Box.Bar(left + column * CELL, top + row * CELL, width * CELL, height * CELL));
                }
            }
        }
    }

    private static int runWidth(List<String> rows, boolean[][] done, int row, int column) {
        int width = 1;
        while (column + width < 7 && filled(rows, row, column + width) && !done[row][column + width]) {
            width++;
        }
        return width;
    }

    private static int runHeight(List<String> rows, int row, int column, int width) {
        int height = 1;
        while (row + height < ROWS && runsAlike(rows, row + height, column, width)) {
            height++;
        }
        return height;
    }

    private static boolean runsAlike(List<String> rows, int row, int column, int width) {
        for (int c = column; c < column + width; c++) {
            if (!filled(rows, row, c)) {
                return false;
            }
        }
        boolean leftEnds = column == 0 || !filled(rows, row, column - 1);
        boolean rightEnds = column + width == 7 || !filled(rows, row, column + width);
        return leftEnds && rightEnds;
    }

    private static boolean filled(List<String> rows, int row, int column) {
        return rows.get(row).charAt(column) == '#';
    }
}
