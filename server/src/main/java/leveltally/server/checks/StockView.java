package leveltally.server.checks;

import java.util.List;

/**
 * The boxes of numbered stock of a series.
 *
 * @param gaps what never came
 * @param left sheets from the next number on
 * @param foretold what to expect in the tray, in words
 */
record StockView(List<BoxView> boxes, List<GapView> gaps, long left, String foretold, boolean mayKeep) {
    /** @param used whether all of its numbers lie behind */
    record BoxView(long id, long first, long last, boolean opened, boolean used) {}

    record GapView(long first, long last) {}
}
