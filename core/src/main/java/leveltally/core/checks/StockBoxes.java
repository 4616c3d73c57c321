package leveltally.core.checks;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import leveltally.core.Refusal;

/** The boxes of numbered stock that a series got: what lies in the tray next, and what never came. */
public record StockBoxes(List<Box> boxes) {
    /** Sheets in one box, as the supplier packs them; more than a pallet holds is a slip of the finger. */
    static final long MOST_IN_A_BOX = 100_000;

    /**
     * A box of stock.
     *
     * @param opened whether its sheets are being used
     */
    public record Box(long id, long first, long last, boolean opened) {
        public Box {
            if (first < 1 || last < first) {
                throw new IllegalArgumentException("a box of stock from " + first + " to " + last);
            }
        }

        public boolean holds(long number) {
            return first <= number && number <= last;
        }
    }

    /** A range of numbers that lies between two boxes. */
    public record Gap(long first, long last) {}

    public StockBoxes {
        boxes = boxes.stream().sorted(Comparator.comparingLong(Box::first)).toList();
    }

    /**
     * @throws Refusal when a box from {@code first} to {@code last} cannot have come
     */
    public void mustTake(long first, long last, NumberRange series) {
        if (first < 1 || last < 1) {
            throw Refusal.invalidField(
                    "box", first < 1 ? "first" : "last", "Write the number as it stands on the label, in digits only.");
        }
        if (last < first) {
            throw Refusal.invalidField(
                    "box", "last", "The last number of a box is not below its first. Read the label once more.");
        }
        if (last - first >= MOST_IN_A_BOX) {
            throw Refusal.invalidField(
                    "box",
                    "last",
                    "A box from " + first + " to " + last + " would hold " + (last - first + 1)
                            + " sheets. Check the numbers you typed.");
        }
        if (!series.holds(first) || !series.holds(last)) {
            throw Refusal.invalidField(
                    "box", "first", "These are not numbers of this series. Check the label and the series.");
        }
        for (Box box : boxes) {
            if (box.first() <= last && first <= box.last()) {
                throw Refusal.invalidField(
                        "box",
                        "first",
                        "Numbers " + box.first() + " to " + box.last()
                                + " came in a box already. Read the label once more.");
            }
        }
    }

    /** What never came: the numbers between boxes. */
    public List<Gap> gaps() {
        List<Gap> gaps = new ArrayList<>();
        for (int i = 1; i < boxes.size(); i++) {
            long after = boxes.get(i - 1).last() + 1;
            if (after < boxes.get(i).first()) {
                gaps.add(new Gap(after, boxes.get(i).first() - 1));
            }
        }
        return gaps;
    }

    /** How many sheets are there from the next free number on, opened or not. */
    public long left(long next) {
        return boxes.stream()
                .mapToLong(box -> Math.max(0, box.last() - Math.max(box.first(), next) + 1))
                .sum();
    }

    /**
     * What to expect in the tray, in words; empty while no box was ever entered.
     *
     * @param next the next free number of the series
     */
    public String foretold(long next) {
        if (boxes.isEmpty()) {
            return "";
        }
        for (Box box : boxes) {
            if (box.holds(next)) {
                return box.opened()
                        ? "The box " + box.first() + " to " + box.last() + " is open; " + next + " is next in it."
                        : "Number " + next + " lies in the box " + box.first() + " to " + box.last()
                                + ", which nobody opened yet.";
            }
        }
        return boxes.stream()
                .filter(box -> box.first() > next)
                .findFirst()
                .map(box -> "No box with number " + next + " came in. The next one there is begins with " + box.first()
                        + ": look for the missing box, or say why its numbers are skipped.")
                .orElse("No box with number " + next
                        + " came in: the stock is used up, or the new box is not entered.");
    }
}
