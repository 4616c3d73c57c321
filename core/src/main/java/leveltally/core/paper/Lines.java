package leveltally.core.paper;

import java.util.List;
import java.util.function.Consumer;
import leveltally.core.batches.Stub;

/** The rows of a stub or an advice in their place: a note, headings, rows, how many more there are elsewhere, and the total. */
record Lines(CheckLayout layout, Block block) {
    private static final double UNDER_HEADS = 3;
    private static final double DESCENT = 3;

    /** Sets a text in its room. */
    interface Pen {
        void put(double x, double y, Face face, double size, Box.Align align, String text, double room);
    }

    /** How many rows there is room for on a part; none where it lists nothing. */
    static int room(CheckLayout layout, Part part, Stub stub) {
        return layout.on(part).stream()
                .filter(block -> block.says() == Says.LINES)
                .findFirst()
                .map(block -> new Lines(layout, block).room(!stub.note().isEmpty()))
                .orElse(0);
    }

    private int room(boolean note) {
        double rows = Area.points(block.area().height()) - besides(note, block.size());
        return Math.max(0, (int) (rows / Block.lead(block.size())));
    }

    /** What the note's line, the headings, the line that counts the rest, and the total take. */
    private static double besides(boolean note, double size) {
        return size + UNDER_HEADS + (note ? 3 : 2) * Block.lead(size) + UNDER_HEADS + DESCENT;
    }

    /** How high a place must be for all rows of a stub, in points. */
    static double heightFor(Stub stub, double size) {
        return besides(!stub.note().isEmpty(), size) + (stub.rows().size() + 0.01) * Block.lead(size);
    }

    /**
     * @param top of the part on its sheet
     * @param from the first row, and how many of them
     */
    void draw(CheckText text, double top, int from, int rows, Pen pen, Consumer<Box> boxes) {
        Stub stub = text.stub();
        double left = Area.points(block.area().x());
        double width = Area.points(block.area().width());
        double right = left + width;
        double y = top + Area.points(block.area().y()) + block.size();
        if (!stub.note().isEmpty()) {
            pen.put(left, y, Face.TEXT, block.size(), Box.Align.LEFT, stub.note(), width);
            y += block.lead();
        }
        cells(y, pen, column -> column.of().head(), Face.TEXT);
        boxes.accept(rule(left, y + UNDER_HEADS + 1, right));
        y += UNDER_HEADS;
        for (Stub.Row row : stub.rows().subList(from, from + rows)) {
            y += block.lead();
            cells(y, pen, column -> column.of().said(row, text.dates(layout)), null);
        }
        int rest = stub.rows().size() - from - rows;
        if (rest > 0) {
            y += block.lead();
            String more = "and " + rest + " more on the remittance advice";
            pen.put(left, y, Face.TEXT, block.size(), Box.Align.LEFT, more, width);
        }
        y += block.lead() + UNDER_HEADS;
        boxes.accept(rule(left, y - block.size() - 1, right));
        String entries = stub.entries() == 1 ? "1 entry" : stub.entries() + " entries";
        pen.put(left, y, Face.BOLD, block.size(), Box.Align.LEFT, entries, width / 2);
        pen.put(
                right,
                y,
                Face.BOLD,
                block.size(),
                Box.Align.RIGHT,
                text.amount().toString(),
                width / 2 - 4);
    }

    /** One row of cells; in the column's own face where none is given. */
    private void cells(
            double y,
            Pen pen,
            java.util.function.Function<Column, String> said,
            @org.jspecify.annotations.Nullable Face face) {
        List<Column> columns = layout.columns();
        double all = columns.stream().mapToInt(Column::share).sum();
        double left = Area.points(block.area().x());
        double width = Area.points(block.area().width());
        for (Column column : columns) {
            double room = width * column.share() / all;
            Box.Align align = column.of().align();
            String words = said.apply(column);
            if (!words.isEmpty()) {
                pen.put(
                        align == Box.Align.LEFT ? left : left + room,
                        y,
                        face == null ? column.of().face() : face,
                        block.size(),
                        align,
                        words,
                        room - 4);
            }
            left += room;
        }
    }

    private static Box.Rule rule(double left, double y, double right) {
        return new Box.Rule(left, y, right, y, 0.5, false);
    }
}
