package leveltally.core.printing;

import java.util.ArrayList;
import java.util.List;
import leveltally.core.ledger.RoutingNumber;

/**
 * The magnetic line of a check: auxiliary on-us (the number), transit, on-us (the account), set in E-13B.
 *
 * <p>Geometry after ISO 1004-1 and ANSI X9.100-20: characters on a pitch of 0.125 inch, drawn on a grid of 0.013 inch, 7
 * cells wide and 9 high, flush right in the pitch; the line stands in the clear band at the bottom of the check, its
 * first digit 0.1875 inch above the lower edge.
 */
public record MicrLine(String text) {
    static final double PITCH = 0.125 * 72;
    static final double CELL = 0.013 * 72;
    static final double BASELINE_ABOVE_EDGE = 0.1875 * 72;
    private static final int ROWS = 9;

    /**
     * Fills an account's pattern: {@code C} on-us symbol, {@code A} transit symbol, {@code D} dash, {@code B} amount
     * symbol, {@code #} a digit of the check number (right aligned, zero filled), {@code T} the routing number, {@code K}
     * the account number, spaces and digits as they are.
     */
    public static MicrLine of(String pattern, RoutingNumber routing, String accountNumber, long checkNumber) {
        long places = pattern.chars().filter(c -> c == '#').count();
        String digits = String.format("%0" + Math.max(places, 1) + "d", checkNumber);
        if (digits.length() > places) {
            throw new IllegalArgumentException(
                    "MICR: number " + checkNumber + " does not fit the " + places + " places of the pattern");
        }
        StringBuilder line = new StringBuilder();
        int next = 0;
        for (char c : pattern.toCharArray()) {
            switch (c) {
                case '#' -> line.append(digits.charAt(next++));
                case 'T' -> line.append(routing.digits());
                case 'K' -> line.append(accountNumber);
                default -> line.append(c);
            }
        }
        return new MicrLine(line.toString());
    }

    public MicrLine {
        for (char c : text.toCharArray()) {
            if (c != ' ' && !MicrGlyphs.has(c)) {
                throw new IllegalArgumentException("MICR: E-13B has no character “" + c + "”");
            }
        }
    }

    /**
     * The bars of the line.
     *
     * @param right x of the right edge of the last character; {@code bottom} y of the check's lower edge, in points
     */
    Box.Bars drawn(double right, double bottom) {
        List<Box.Bar> bars = new ArrayList<>();
        double baseline = bottom - BASELINE_ABOVE_EDGE;
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c != ' ') {
                double edge = right - (text.length() - 1 - i) * PITCH;
                addGlyph(bars, MicrGlyphs.rows(c), edge - 7 * CELL, baseline - ROWS * CELL);
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
