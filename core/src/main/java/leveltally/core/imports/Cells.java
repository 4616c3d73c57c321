package leveltally.core.imports;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import leveltally.core.Refusal;

/** Reads the cells of one row and collects what is wrong with them; nothing is refused before all were read. */
final class Cells {
    private static final LocalDate FIRST = LocalDate.of(1990, 1, 1);
    private static final LocalDate LAST = LocalDate.of(2199, 12, 31);

    private final Map<String, String> cells;
    private final List<Finding> findings = new ArrayList<>();

    Cells(Map<String, String> cells) {
        this.cells = cells;
    }

    List<Finding> findings() {
        return List.copyOf(findings);
    }

    void wrong(String column, String reason) {
        findings.add(new Finding(column, reason));
    }

    String raw(String column) {
        return cells.getOrDefault(column, "").strip();
    }

    /** A text that no spreadsheet would run. */
    String text(String column, int longest, boolean required) {
        String text = raw(column);
        if (text.isEmpty() && required) {
            wrong(column, "is empty; it is needed");
        } else if (text.length() > longest) {
            wrong(column, "has " + text.length() + " characters; at most " + longest + " fit");
        } else if (!text.isEmpty() && "=+-@".indexOf(text.charAt(0)) >= 0) {
            wrong(column, "begins with “" + text.charAt(0) + "”, so a spreadsheet would take it for a formula");
        } else if (text.chars().anyMatch(Character::isISOControl)) {
            wrong(column, "holds a control character");
        }
        return text;
    }

    Optional<LocalDate> day(String column, boolean required) {
        String text = raw(column);
        if (text.isEmpty()) {
            if (required) {
                wrong(column, "is empty; a day such as 2026-11-03 is needed");
            }
            return Optional.empty();
        }
        try {
            LocalDate day = LocalDate.parse(text);
            if (!day.isBefore(FIRST) && !day.isAfter(LAST)) {
                return Optional.of(day);
            }
        } catch (DateTimeException noDay) {
            // said below
        }
        wrong(column, "“" + shortened(text) + "” is no day such as 2026-11-03");
        return Optional.empty();
    }

    /** @param words what may stand there, the first for an empty cell */
    String oneOf(String column, List<String> words) {
        String text = raw(column).toLowerCase(java.util.Locale.ROOT);
        if (text.isEmpty()) {
            return words.get(0);
        }
        if (!words.contains(text)) {
            wrong(column, "“" + shortened(text) + "” is none of " + String.join(", ", words));
            return words.get(0);
        }
        return text;
    }

    /** What core reads from a typed text, with its refusal as a finding. */
    <T> Optional<T> read(String column, java.util.function.Function<String, T> reading) {
        try {
            return Optional.of(reading.apply(raw(column)));
        } catch (Refusal refused) {
            wrong(column, refused.sentence());
        } catch (IllegalArgumentException refused) {
            wrong(column, String.valueOf(refused.getMessage()));
        }
        return Optional.empty();
    }

    private static String shortened(String text) {
        return text.length() > 40 ? text.substring(0, 40) + "…" : text;
    }
}
