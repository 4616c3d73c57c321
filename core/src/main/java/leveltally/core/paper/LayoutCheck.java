package leveltally.core.paper;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import leveltally.core.Refusal;

/** Finds what is wrong with a layout before anything is printed on it. */
public final class LayoutCheck {
    /** A check that is lower has no room for its MICR line and what stands above it (ANSI X9.100-160: 2¾ inches). */
    private static final int LEAST_CHECK = 69_850;

    private static final Set<Says> NEEDED =
            EnumSet.of(Says.DATE, Says.PAYEE, Says.AMOUNT, Says.WORDS, Says.SIGNATURE, Says.NUMBER);
    private static final Set<Says> MANY = EnumSet.of(Says.TEXT, Says.SIGNATURE);

    private final CheckLayout layout;
    private final List<CheckText> samples;
    private final Measure measure;
    private final List<Finding> findings = new ArrayList<>();

    private LayoutCheck(CheckLayout layout, List<CheckText> samples, Measure measure) {
        this.layout = layout;
        this.samples = samples;
        this.measure = measure;
    }

    /**
     * Everything that is wrong, by part and block; empty when a check can be printed on it.
     *
     * @param samples what has to fit on it, the longest and the largest among them
     */
    public static List<Finding> of(CheckLayout layout, List<CheckText> samples, Measure measure) {
        LayoutCheck check = new LayoutCheck(layout, samples, measure);
        check.heights();
        for (Part part : Part.values()) {
            if (part != Part.STUB || layout.stubs() > 0) {
                check.completeness(part);
                check.places(part);
            }
        }
        return List.copyOf(check.findings);
    }

    private void heights() {
        if (layout.checkHeight() < LEAST_CHECK) {
            find(
                    Part.CHECK,
                    -1,
                    "The check is " + inMillimetres(layout.checkHeight())
                            + " high; below 69.85 mm there is no room for what the bank's machines read.");
        }
    }

    private void completeness(Part part) {
        List<Says> there = layout.on(part).stream().map(Block::says).toList();
        if (part == Part.CHECK) {
            for (Says needed : NEEDED) {
                if (!there.contains(needed)) {
                    find(part, -1, "The " + needed.words() + " is missing; without it this is no check.");
                }
            }
        }
        if (part == Part.CHECK
                && !there.contains(Says.SECOND_SIGNATURE)
                && samples.stream().anyMatch(CheckText::needsSecond)) {
            find(
                    part,
                    -1,
                    "Two people sign checks above " + samples.get(0).payer().secondAbove()
                            + ": the second signature line is missing.");
        }
        if (part == Part.ADVICE && Lines.room(layout, part, samples.get(0).stub()) < 5) {
            find(part, -1, "The advice needs a place for at least five lines.");
        }
        if (part == Part.STUB
                && there.contains(Says.LINES)
                && Lines.room(layout, part, samples.get(0).stub()) < 1) {
            find(part, there.indexOf(Says.LINES), "There is no room for a single line here. Make it higher.");
        }
        for (int i = 0; i < there.size(); i++) {
            Says says = there.get(i);
            if (!says.parts().contains(part)) {
                find(part, i, "The " + says.words() + " does not belong on " + part.words() + ".");
            } else if (!MANY.contains(says) && there.indexOf(says) < i) {
                find(part, i, "The " + says.words() + " stands on " + part.words() + " twice.");
            }
        }
    }

    private void places(Part part) {
        List<Block> blocks = layout.on(part);
        Area free = layout.printable(part);
        for (int i = 0; i < blocks.size(); i++) {
            Block block = blocks.get(i);
            Area area = block.area();
            if (area.x() < free.x() || area.right() > free.right() || area.y() < free.y()) {
                find(
                        part,
                        i,
                        "It reaches beyond what a printer can print on: 6.35 mm stay free at each edge of the sheet.");
            } else if (area.bottom() > free.bottom()) {
                find(
                        part,
                        i,
                        part == Part.CHECK
                                ? "It reaches into the clear band: in the lowest 15.88 mm of a check nothing but the MICR line may stand."
                                : "It reaches beyond the end of " + part.words() + ".");
            }
            if (Area.points(area.height()) < block.size() - 0.01) {
                find(part, i, "Its letters of " + block.size() + " points are higher than its place.");
            }
            for (int j = i + 1; j < blocks.size(); j++) {
                if (area.overlaps(blocks.get(j).area())) {
                    find(part, i, "It overlaps the " + blocks.get(j).says().words() + ".");
                    find(part, j, "It overlaps the " + block.says().words() + ".");
                }
            }
            if (block.says().parts().contains(part)) {
                fits(part, i, block);
            }
        }
    }

    private void fits(Part part, int at, Block block) {
        for (CheckText sample : samples) {
            try {
                CheckDrawing.tryOut(sample, layout, part, block, measure);
            } catch (Refusal refused) {
                find(part, at, refused.sentence());
                return;
            }
        }
    }

    private void find(Part part, int block, String words) {
        findings.add(new Finding(part, block, words));
    }

    private static String inMillimetres(int micrometres) {
        return String.format(Locale.ENGLISH, "%.2f mm", micrometres / 1000.0);
    }
}
