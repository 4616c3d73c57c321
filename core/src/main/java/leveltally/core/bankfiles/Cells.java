package leveltally.core.bankfiles;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Parts a record into what stands in its fields. */
final class Cells {
    private Cells() {}

    /** By their widths; blanks at the end may be left away. Null where it is longer, or ends within a field that is not blank. */
    static @Nullable List<String> of(String line, List<Integer> widths) {
        int all = widths.stream().mapToInt(Integer::intValue).sum();
        int length = line.codePointCount(0, line.length());
        if (length > all && !line.substring(line.offsetByCodePoints(0, all)).isBlank()) {
            return null;
        }
        List<String> cells = new ArrayList<>();
        int at = 0;
        for (int width : widths) {
            int left = line.codePointCount(at, line.length());
            int end = line.offsetByCodePoints(at, Math.min(width, left));
            cells.add(line.substring(at, end) + " ".repeat(width - Math.min(width, left)));
            at = end;
        }
        return cells;
    }

    /** By what separates them; null where a quote is left open. */
    static @Nullable List<String> of(String line, Shape.Delimited by) {
        List<String> cells = new ArrayList<>();
        StringBuilder cell = new StringBuilder();
        boolean quotes = by.quoting() != Shape.Quoting.NEVER;
        boolean quoted = false;
        boolean begins = true;
        for (int i = 0; i < line.length(); i++) {
            char c = line.charAt(i);
            boolean more = i + 1 < line.length();
            if (by.escape() == Shape.Escape.BACKSLASH && c == '\\' && more) {
                cell.append(line.charAt(++i));
                begins = false;
            } else if (quotes && quoted && c == by.quote()) {
                if (by.escape() == Shape.Escape.DOUBLED && more && line.charAt(i + 1) == by.quote()) {
                    cell.append(c);
                    i++;
                } else {
                    quoted = false;
                }
            } else if (quotes && begins && c == by.quote()) {
                quoted = true;
                begins = false;
            } else if (!quoted && c == by.separator()) {
                cells.add(cell.toString());
                cell.setLength(0);
                begins = true;
            } else {
                cell.append(c);
                begins = false;
            }
        }
        cells.add(cell.toString());
        return quoted ? null : cells;
    }
}
