package leveltally.core.paper;

import java.util.ArrayList;
import java.util.Collections;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import leveltally.core.DateStyle;

/**
 * How a check, its stubs and its remittance advice stand on paper: data, so that an administrator changes it and no
 * developer. What it says is {@link CheckText}; the number of the sheet's stock and the MICR line belong to the
 * {@link Paper}.
 *
 * @param checkHeight in micrometres; the rest of the sheet is divided among its stubs
 * @param stubs none, one or two
 * @param blocks what stands on each part, in its own measures
 * @param columns of the lines, from left to right
 */
public record CheckLayout(
        PageSize page,
        Place place,
        int checkHeight,
        int stubs,
        DateStyle dates,
        Map<Part, List<Block>> blocks,
        List<Column> columns) {
    /** From each edge of the sheet: no printer reaches nearer. */
    static final int EDGE = 6_350;
    /** The lowest 5/8 inch of a check, in which nothing but the MICR line stands (ANSI X9.100-160). */
    static final int CLEAR_BAND = 15_875;

    public CheckLayout {
        Map<Part, List<Block>> kept = new EnumMap<>(Part.class);
        for (Part part : Part.values()) {
            kept.put(part, List.copyOf(blocks.getOrDefault(part, List.of())));
        }
        blocks = Collections.unmodifiableMap(kept);
        columns = List.copyOf(columns);
        if (stubs < 0 || stubs > 2) {
            throw new IllegalArgumentException("a sheet has none, one or two stubs, not " + stubs);
        }
        if (columns.isEmpty()) {
            throw new IllegalArgumentException("lines need a column");
        }
        if (checkHeight <= 0
                || checkHeight > page.height()
                || (halves(place, stubs) > 0 && checkHeight == page.height())) {
            throw new IllegalArgumentException("a check of " + checkHeight + " µm and " + stubs
                    + " stubs do not stand on a sheet of " + page.height() + " µm");
        }
    }

    /** Into how many equal strips the rest of the sheet is divided. */
    private static int halves(Place place, int stubs) {
        return place == Place.MIDDLE ? 2 : stubs;
    }

    public List<Block> on(Part part) {
        return blocks.get(part);
    }

    public int stubHeight() {
        int strips = halves(place, stubs);
        return strips == 0 ? 0 : (page.height() - checkHeight) / strips;
    }

    /** From the top of the sheet to the top of the check. */
    public int checkTop() {
        return switch (place) {
            case TOP -> 0;
            case MIDDLE -> stubHeight();
            case BOTTOM -> page.height() - checkHeight;
        };
    }

    /** From the top of the sheet to the top of each stub. */
    public List<Integer> stubTops() {
        List<Integer> tops = new ArrayList<>();
        int above = place == Place.TOP ? 0 : place == Place.MIDDLE ? Math.min(1, stubs) : stubs;
        for (int i = 0; i < above; i++) {
            tops.add(checkTop() - (above - i) * stubHeight());
        }
        for (int i = 0; i < stubs - above; i++) {
            tops.add(checkTop() + checkHeight + i * stubHeight());
        }
        return tops;
    }

    /** How high a part is. */
    public int height(Part part) {
        return switch (part) {
            case CHECK -> checkHeight;
            case STUB -> stubHeight();
            case ADVICE -> page.height();
        };
    }

    /**
     * Where the given areas of a part may not go: the edges that no printer reaches, and on the check the clear band.
     *
     * @return the largest area that is free
     */
    public Area printable(Part part) {
        int top = part != Part.ADVICE && topOf(part) > 0 ? 0 : EDGE;
        int bottom = part == Part.CHECK ? checkHeight - CLEAR_BAND : height(part) - (endsSheet(part) ? EDGE : 0);
        return new Area(EDGE, top, page.width() - 2 * EDGE, bottom - top);
    }

    private int topOf(Part part) {
        return part == Part.CHECK ? checkTop() : Collections.min(stubTops());
    }

    private boolean endsSheet(Part part) {
        return part == Part.ADVICE || Collections.max(stubTops()) + stubHeight() > page.height() - EDGE;
    }
}
