package leveltally.core.exchange;

import java.util.regex.Pattern;
import leveltally.core.Refusal;

/** Names of files: {@code *} stands for any characters, {@code ?} for one; letters count alike, large or small. */
public record FilePattern(String text) {
    private static final int LONGEST = 80;

    public FilePattern {
        text = text.strip();
        if (text.isEmpty() || text.length() > LONGEST || text.contains("/")) {
            throw Refusal.invalidField(
                    "file-pattern",
                    "rules",
                    "Say which files are meant by their names, such as paid-*.txt, in at most " + LONGEST
                            + " characters.");
        }
    }

    public boolean matches(String name) {
        StringBuilder expression = new StringBuilder();
        for (char one : text.toCharArray()) {
            expression.append(
                    switch (one) {
                        case '*' -> ".*";
                        case '?' -> ".";
                        default -> Pattern.quote(String.valueOf(one));
                    });
        }
        return Pattern.compile(expression.toString(), Pattern.CASE_INSENSITIVE | Pattern.UNICODE_CASE)
                .matcher(name)
                .matches();
    }
}
