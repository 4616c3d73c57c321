package leveltally.core.printing;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import leveltally.core.Refusal;

/** Answers for many sheets at once by the numbers on them, as they are read in the tray: {@code 41742-41760, 41763}. */
public final class ByNumber {
    private static final Pattern ONE = Pattern.compile("(\\d{1,12})(?:\\s*(?:-|–|to)\\s*(\\d{1,12}))?");
    /** More than any run has. */
    private static final int MOST = 50_000;

    private ByNumber() {}

    /**
     * The numbers a text names, single ones and ranges, with commas or spaces between.
     *
     * @param field where it was typed
     * @throws Refusal naming the part that is no number or range
     */
    public static Set<Long> read(String text, String field) {
        Set<Long> numbers = new TreeSet<>();
        for (String part : text.strip().split("\\s*[,;\\n]\\s*")) {
            if (part.isBlank()) {
                continue;
            }
            Matcher range = ONE.matcher(part.strip());
            if (!range.matches()) {
                throw Refusal.invalidField(
                        "numbers-unreadable",
                        field,
                        "“" + part.strip()
                                + "” is no number. Write numbers and ranges with commas, such as 41742-41760, 41763.");
            }
            long first = Long.parseLong(range.group(1));
            long last = range.group(2) == null ? first : Long.parseLong(range.group(2));
            if (last < first || last - first >= MOST) {
                throw Refusal.invalidField(
                        "numbers-unreadable",
                        field,
                        "The range “" + part.strip() + "” does not run upwards, or is longer than any run.");
            }
            if (numbers.size() + last - first >= MOST) {
                throw Refusal.invalidField(
                        "numbers-many", field, "That names more than " + MOST + " numbers. No run has so many sheets.");
            }
            for (long number = first; number <= last; number++) {
                numbers.add(number);
            }
        }
        return numbers;
    }

    /** One sheet and what is said of it. */
    public record Said(long number, Answer answer) {}

    /**
     * @param waiting the numbers of the sheets that wait for an answer
     * @param texts what was typed for each answer
     * @return in the order of the numbers
     * @throws Refusal when a number is named twice, or its sheet does not wait, or none is named at all
     */
    public static List<Said> said(Set<Long> waiting, Map<Answer, String> texts) {
        Map<Long, Answer> said = new TreeMap<>();
        for (Map.Entry<Answer, String> text : new EnumMap<>(texts).entrySet()) {
            String field = field(text.getKey());
            for (long number : read(text.getValue(), field)) {
                if (!waiting.contains(number)) {
                    throw Refusal.invalidField(
                            "not-waiting",
                            field,
                            "No sheet with the number " + number
                                    + " waits for an answer here: it is of another batch, was not printed, or was answered.");
                }
                Answer other = said.put(number, text.getKey());
                if (other != null) {
                    throw Refusal.invalidField(
                            "named-twice",
                            field,
                            "Number " + number + " is named as " + other.words() + ", too. Name it once.");
                }
            }
        }
        if (said.isEmpty()) {
            throw Refusal.invalidField("no-numbers", field(Answer.GOOD), "Name at least one number.");
        }
        List<Said> all = new ArrayList<>();
        said.forEach((number, answer) -> all.add(new Said(number, answer)));
        return all;
    }

    private static String field(Answer answer) {
        return answer.name().toLowerCase(java.util.Locale.ROOT);
    }
}
