package leveltally.server.paper;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.List;
import java.util.Map;
import leveltally.core.DateStyle;
import leveltally.core.Refusal;
import leveltally.core.paper.Area;
import leveltally.core.paper.Block;
import leveltally.core.paper.Box;
import leveltally.core.paper.CheckLayout;
import leveltally.core.paper.Column;
import leveltally.core.paper.Face;
import leveltally.core.paper.PageSize;
import leveltally.core.paper.Part;
import leveltally.core.paper.Place;
import leveltally.core.paper.Says;

/**
 * A layout as an open file, described in {@code docs/formats.md}; lengths are millimetres with at most three decimals.
 *
 * @param format {@link #FORMAT}
 */
record LayoutFile(
        @NotNull String format,
        @NotNull Sheet page,
        @NotNull Place place,
        @NotNull BigDecimal checkHeight,
        int stubs,
        @NotNull DateStyle dates,
        @NotNull @Valid @Size(max = MOST_BLOCKS) List<BlockFile> check,
        @NotNull @Valid @Size(max = MOST_BLOCKS) List<BlockFile> stub,
        @NotNull @Valid @Size(max = MOST_BLOCKS) List<BlockFile> advice,
        @NotNull @Valid @Size(max = 12) List<ColumnFile> columns) {
    static final String FORMAT = "level-tally check layout 1";
    private static final int MOST_BLOCKS = 40;
    /** A metre: no sheet is larger. */
    private static final BigDecimal LONGEST = new BigDecimal(1_000);

    /** A sheet of stock. */
    enum Sheet {
        LETTER(PageSize.LETTER),
        A4(PageSize.A4);

        private final PageSize size;

        Sheet(PageSize size) {
            this.size = size;
        }

        PageSize size() {
            return size;
        }
    }

    record BlockFile(
            @NotNull Says says,
            @NotNull BigDecimal x,
            @NotNull BigDecimal y,
            @NotNull BigDecimal width,
            @NotNull BigDecimal height,
            @NotNull Face face,
            @NotNull BigDecimal size,
            @NotNull Box.Align align,
            @NotNull @Size(max = 200) String text) {}

    record ColumnFile(@NotNull Column.Of of, int share) {}

    static LayoutFile of(CheckLayout layout) {
        return new LayoutFile(
                FORMAT,
                layout.page().equals(PageSize.A4) ? Sheet.A4 : Sheet.LETTER,
                layout.place(),
                millimetres(layout.checkHeight()),
                layout.stubs(),
                layout.dates(),
                blocks(layout, Part.CHECK),
                blocks(layout, Part.STUB),
                blocks(layout, Part.ADVICE),
                layout.columns().stream()
                        .map(column -> new ColumnFile(column.of(), column.share()))
                        .toList());
    }

    private static List<BlockFile> blocks(CheckLayout layout, Part part) {
        return layout.on(part).stream()
                .map(block -> new BlockFile(
                        block.says(),
                        millimetres(block.area().x()),
                        millimetres(block.area().y()),
                        millimetres(block.area().width()),
                        millimetres(block.area().height()),
                        block.face(),
                        BigDecimal.valueOf(block.size()).stripTrailingZeros(),
                        block.align(),
                        block.text()))
                .toList();
    }

    /** @throws Refusal when it is no layout */
    CheckLayout layout() {
        if (!format.equals(FORMAT)) {
            throw Refusal.invalidField(
                    "layout-format", "format", "This is no layout of checks: its format is not “" + FORMAT + "”.");
        }
        try {
            return new CheckLayout(
                    page.size(),
                    place,
                    micrometres(checkHeight),
                    stubs,
                    dates,
                    Map.of(Part.CHECK, blocks(check), Part.STUB, blocks(stub), Part.ADVICE, blocks(advice)),
                    columns.stream().map(c -> new Column(c.of(), c.share())).toList());
        } catch (IllegalArgumentException broken) {
            throw Refusal.invalid("layout-broken", "The layout cannot be read: " + broken.getMessage() + ".");
        }
    }

    private static List<Block> blocks(List<BlockFile> files) {
        return files.stream()
                .map(file -> new Block(
                        file.says(),
                        new Area(
                                micrometres(file.x()),
                                micrometres(file.y()),
                                micrometres(file.width()),
                                micrometres(file.height())),
                        file.face(),
                        mustBeShort(file.size()).doubleValue(),
                        file.align(),
                        file.text().strip()))
                .toList();
    }

    static BigDecimal millimetres(int micrometres) {
        BigDecimal exact = BigDecimal.valueOf(micrometres, 3).stripTrailingZeros();
        return exact.scale() < 0 ? exact.setScale(0, RoundingMode.UNNECESSARY) : exact;
    }

    /** A number with thousands of digits, or an exponent that makes them, is worked on for ever. */
    private static BigDecimal mustBeShort(BigDecimal number) {
        if (Math.abs(number.scale()) > 9 || number.precision() > 12) {
            throw new IllegalArgumentException("a number of too many digits");
        }
        return number;
    }

    private static int micrometres(BigDecimal millimetres) {
        mustBeShort(millimetres);
        if (millimetres.abs().compareTo(LONGEST) > 0) {
            throw new IllegalArgumentException("a length of " + millimetres.toPlainString() + " mm");
        }
        return millimetres.movePointRight(3).setScale(0, RoundingMode.HALF_UP).intValueExact();
    }
}
