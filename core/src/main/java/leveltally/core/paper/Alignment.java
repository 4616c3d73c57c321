package leveltally.core.paper;

import leveltally.core.Refusal;

/**
 * By how much a printer draws beside the place on the stock of a series, made up for when a check is printed.
 *
 * @param right in tenths of a millimetre; below zero to the left
 * @param down in tenths of a millimetre; below zero upwards
 */
public record Alignment(int right, int down) {
    public static final Alignment NONE = new Alignment(0, 0);
    /** A centimetre; what is further away is another layout. */
    private static final int MOST = 100;

    private static final double POINTS_A_TENTH = 72 / 254.0;

    public Alignment {
        if (Math.abs(right) > MOST || Math.abs(down) > MOST) {
            throw Refusal.invalid(
                    "alignment-far",
                    "A printer is off by a centimetre at most; what is further away is a matter of the layout.");
        }
    }

    double pointsRight() {
        return right * POINTS_A_TENTH;
    }

    double pointsDown() {
        return down * POINTS_A_TENTH;
    }
}
