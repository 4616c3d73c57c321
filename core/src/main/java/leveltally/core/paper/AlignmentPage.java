package leveltally.core.paper;

import java.util.ArrayList;
import java.util.List;

/** A page on plain paper to lay over a sheet of stock, against the light: where everything will stand. */
public final class AlignmentPage {
    private static final double TEN_MM = Area.points(10_000);
    private static final double ARM = 8;
    private static final double SMALL = 7;

    private AlignmentPage() {}

    /**
     * The frame of each block with its name, the edges of the check, its clear band, and a cross a centimetre from each
     * corner of the sheet, to be measured after.
     */
    public static Page of(CheckLayout layout) {
        List<Box> boxes = new ArrayList<>();
        double width = Area.points(layout.page().width());
        double height = Area.points(layout.page().height());
        double top = Area.points(layout.checkTop());
        double end = top + Area.points(layout.checkHeight());
        outlines(boxes, layout, Part.CHECK, top);
        for (int stub : layout.stubTops()) {
            outlines(boxes, layout, Part.STUB, Area.points(stub));
        }
        if (top > 0) {
            boxes.add(new Box.Rule(0, top, width, top, 0.5, true));
        }
        boxes.add(new Box.Rule(0, end, width, end, 0.5, true));
        double band = end - Area.points(CheckLayout.CLEAR_BAND);
        boxes.add(new Box.Rule(0, band, width, band, 0.3, true));
        boxes.add(new Box.Text(
                width / 2,
                end - 14,
                Face.TEXT,
                SMALL,
                Box.Align.CENTER,
                "NOT A CHECK. Here stands the MICR line alone."));
        for (double x : new double[] {TEN_MM, width - TEN_MM}) {
            for (double y : new double[] {TEN_MM, height - TEN_MM}) {
                boxes.add(new Box.Rule(x - ARM, y, x + ARM, y, 0.5, false));
                boxes.add(new Box.Rule(x, y - ARM, x, y + ARM, 0.5, false));
            }
        }
        boxes.add(new Box.Text(
                width / 2,
                height - TEN_MM + 2,
                Face.TEXT,
                SMALL,
                Box.Align.CENTER,
                "The crosses stand 10.0 mm from the edges. What they are off by is what to set for this printer."));
        return new Page(width, height, boxes);
    }

    private static void outlines(List<Box> boxes, CheckLayout layout, Part part, double top) {
        for (Block block : layout.on(part)) {
            Area area = block.area();
            double x = Area.points(area.x());
            double y = top + Area.points(area.y());
            boxes.add(new Box.Frame(x, y, Area.points(area.width()), Area.points(area.height())));
            boxes.add(new Box.Text(
                    x + 2,
                    y + SMALL,
                    Face.TEXT,
                    SMALL,
                    Box.Align.LEFT,
                    block.says().words()));
        }
    }
}
