package leveltally.core.contacts;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import leveltally.core.Refusal;

/**
 * What is written to a payee whose check was not presented: words with marks in braces, which each check fills.
 *
 * @param text paragraphs, an empty line between
 */
public record ContactLetter(String subject, String text) {
    /** What can stand in braces, with what it becomes. */
    public static final Map<String, String> MARKS = Map.of(
            "payee", "the payee",
            "number", "the number of the check",
            "amount", "its amount with the currency",
            "date", "the date of the check",
            "days", "how many days it is outstanding",
            "company", "the name of our company");

    private static final Pattern MARK = Pattern.compile("\\{([^{}]*)}");
    private static final int MOST_SUBJECT = 120;
    private static final int MOST_TEXT = 3_000;

    /** What is written where nobody wrote another. */
    public static final ContactLetter USUAL =
            new ContactLetter("Check {number} of {date} was not presented", """
                    Good day,

                    our check {number} of {date} over {amount}, payable to {payee}, has not reached our bank in {days} days.

                    If you have it, please present it. If it is lost, or you do not expect this payment, please tell us: we stop \
                    the check and pay you once more, or note that nothing is owed.

                    {company}
                    """.strip());

    /** @throws Refusal when it says nothing, too much, or holds a mark that nothing fills */
    public ContactLetter {
        subject = subject.strip();
        text = text.replace("\r\n", "\n").strip();
        if (subject.isEmpty() || subject.length() > MOST_SUBJECT || subject.contains("\n")) {
            throw Refusal.invalidField(
                    "letter-subject",
                    "subject",
                    "What it is about is one line of at most " + MOST_SUBJECT + " characters.");
        }
        if (text.isEmpty() || text.length() > MOST_TEXT) {
            throw Refusal.invalidField("letter-text", "text", "A letter has up to " + MOST_TEXT + " characters.");
        }
        known("subject", subject);
        known("text", text);
    }

    private static void known(String field, String words) {
        Set<String> strange = MARK.matcher(words)
                .results()
                .map(mark -> mark.group(1))
                .filter(mark -> !MARKS.containsKey(mark))
                .collect(Collectors.toCollection(TreeSet::new));
        if (!strange.isEmpty()) {
            throw Refusal.invalidField(
                    "letter-mark",
                    field,
                    "Nothing fills {" + String.join("} and {", strange) + "}. What can stand in braces: "
                            + String.join(", ", new TreeSet<>(MARKS.keySet())) + ".");
        }
    }

    /** The same with its marks filled. */
    public Filled filled(Map<String, String> of) {
        Function<String, String> fill = words -> MARK.matcher(words)
                .replaceAll(mark -> Matcher.quoteReplacement(of.getOrDefault(mark.group(1), mark.group())));
        return new Filled(fill.apply(subject), List.of(fill.apply(text).split("\n\\s*\n")));
    }

    /** A letter to one payee. */
    public record Filled(String subject, List<String> paragraphs) {
        public Filled {
            paragraphs = List.copyOf(paragraphs);
        }
    }
}
