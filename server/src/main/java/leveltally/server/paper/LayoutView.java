package leveltally.server.paper;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import leveltally.core.paper.CheckDrawing;
import leveltally.core.paper.CheckLayout;
import leveltally.core.paper.CheckText;
import leveltally.core.paper.Finding;
import leveltally.core.paper.Measure;
import leveltally.core.paper.Part;

/**
 * A layout as it is seen while it is made.
 *
 * @param layout as it was read
 * @param sheet check and stubs, as far as they can be drawn
 * @param parts where blocks may stand, in millimetres
 * @param findings what is wrong; while there is any it is not kept
 */
record LayoutView(
        LayoutFile layout, PageView sheet, PageView advice, List<PartView> parts, List<LayoutFinding> findings) {
    /**
     * @param tops of the part on its sheet, from the top: of the stub there may be two
     * @param free where blocks may stand, in the part's own measures
     */
    record PartView(Part part, String words, List<BigDecimal> tops, BigDecimal height, AreaView free) {}

    record AreaView(BigDecimal x, BigDecimal y, BigDecimal width, BigDecimal height) {}

    record LayoutFinding(Part part, int block, String words) {}

    static LayoutView of(CheckLayout layout, CheckText sample, List<Finding> findings, Measure measure) {
        List<PartView> parts = new ArrayList<>();
        parts.add(part(layout, Part.CHECK, List.of(layout.checkTop())));
        if (layout.stubs() > 0) {
            parts.add(part(layout, Part.STUB, layout.stubTops()));
        }
        parts.add(part(layout, Part.ADVICE, List.of(0)));
        return new LayoutView(
                LayoutFile.of(layout),
                PageView.of(CheckDrawing.loosely(sample, layout, measure)),
                PageView.of(CheckDrawing.looseAdvice(sample, layout, measure)),
                parts,
                findings.stream()
                        .map(found -> new LayoutFinding(found.part(), found.block(), found.words()))
                        .toList());
    }

    private static PartView part(CheckLayout layout, Part part, List<Integer> tops) {
        var free = layout.printable(part);
        return new PartView(
                part,
                part.words(),
                tops.stream().map(LayoutFile::millimetres).toList(),
                LayoutFile.millimetres(layout.height(part)),
                new AreaView(
                        LayoutFile.millimetres(free.x()),
                        LayoutFile.millimetres(free.y()),
                        LayoutFile.millimetres(free.width()),
                        LayoutFile.millimetres(free.height())));
    }
}
