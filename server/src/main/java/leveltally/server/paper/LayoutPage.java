package leveltally.server.paper;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.paper.Part;

/**
 * The layouts of one series.
 *
 * @param layout what is printed on today
 * @param inForce its version; 0 for the one that was there before anybody made one
 * @param alignments one for each printer in use
 * @param newest the newest version; 0 for none
 * @param blocks what blocks can say, and where
 * @param others the series of all accounts, to begin from theirs
 */
record LayoutPage(
        long series,
        String name,
        String stock,
        List<AlignmentView> alignments,
        String loading,
        LayoutFile layout,
        int inForce,
        int newest,
        List<LayoutVersion> versions,
        List<BlockChoice> blocks,
        List<PaperChoice> samples,
        List<PaperChoice> dates,
        List<OtherSeries> others,
        boolean mayKeep,
        boolean mayAlign) {
    /** @param state whether it is printed on now, later, or was */
    record LayoutVersion(int version, LocalDate from, String why, Instant madeAt, String madeBy, String state) {}

    record BlockChoice(String says, String words, List<Part> parts) {}

    record PaperChoice(String value, String words) {}

    record OtherSeries(long series, String name) {}
}
