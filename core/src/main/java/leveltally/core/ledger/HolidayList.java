package leveltally.core.ledger;

import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.Map;
import java.util.TreeMap;
import leveltally.core.Refusal;

/** Reads a bank's list of holidays. */
public final class HolidayList {
    private static final int MOST_NAME = 80;
    private static final int DATE = 10;

    private HolidayList() {}

    /**
     * A day in each line as {@code 2026-12-25}, then its name, with a comma, a semicolon, a tab or a space between; empty
     * lines and a line of headings are passed over.
     *
     * @throws Refusal naming the first line that is none; nothing is read by halves
     */
    public static Map<LocalDate, String> read(String text) {
        Map<LocalDate, String> days = new TreeMap<>();
        String[] lines = text.replace("\ufeff", "").split("\\R");
        for (int i = 0; i < lines.length; i++) {
            String line = lines[i].strip().replace("\"", "");
            if (line.isEmpty() || i == 0 && !Character.isDigit(line.charAt(0))) {
                continue;
            }
            String name = line.length() > DATE ? line.substring(DATE).replaceFirst("^[\\s,;]+", "") : "";
            if (name.length() > MOST_NAME) {
                throw refused(i, "has a name of more than " + MOST_NAME + " characters");
            }
            try {
                days.put(LocalDate.parse(line.substring(0, Math.min(DATE, line.length()))), name.strip());
            } catch (DateTimeParseException noDay) {
                throw refused(i, "does not begin with a day such as 2026-12-25");
            }
        }
        if (days.isEmpty() || days.size() > BankingDays.MOST_HOLIDAYS) {
            throw Refusal.invalidField(
                    "holidays",
                    "text",
                    "Give 1 to " + BankingDays.MOST_HOLIDAYS
                            + " days, one in a line, such as 2026-12-25 Christmas Day.");
        }
        return days;
    }

    private static Refusal refused(int line, String why) {
        return Refusal.invalidField(
                "holidays", "text", "Line " + (line + 1) + " " + why + ". Nothing was brought in; mend the line.");
    }
}
