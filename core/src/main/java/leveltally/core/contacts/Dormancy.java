package leveltally.core.contacts;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import leveltally.core.Refusal;

/**
 * After how many years what a payee did not claim is handed over, by the state of the payee's address. A state is known by
 * how its postal codes begin.
 */
public record Dormancy(List<Rule> rules) {
    /**
     * One state.
     *
     * @param prefix of its postal codes, in capitals; empty for every address that no other rule is for
     */
    public record Rule(String prefix, String state, int years) {
        /** The day from which a check of this date is handed over. */
        public LocalDate from(LocalDate checkDate) {
            return checkDate.plusYears(years);
        }
    }

    private static final Pattern LINE = Pattern.compile("(\\S+)\\s+(.*\\S)\\s+(\\d{1,2})");
    private static final String OTHERS = "*";
    private static final int MOST = 200;
    private static final int MOST_YEARS = 30;

    public Dormancy {
        rules = List.copyOf(rules);
    }

    /**
     * Reads rules as they are typed, a line each: {@code 410 Skerrow 3}; an asterisk stands for all other addresses.
     *
     * @throws Refusal naming the first line that is none
     */
    public static Dormancy read(String typed) {
        List<Rule> rules = new ArrayList<>();
        Set<String> before = new HashSet<>();
        String[] lines = typed.split("\\R");
        for (int i = 0; i < lines.length; i++) {
            String line = lines[i].strip();
            if (line.isEmpty()) {
                continue;
            }
            Matcher parts = LINE.matcher(line);
            if (!parts.matches()) {
                throw refused(
                        i,
                        "“" + line + "” is not a beginning of postal codes, a state and years, such as 410 Skerrow 3.");
            }
            int years = Integer.parseInt(parts.group(3));
            if (years < 1
                    || years > MOST_YEARS
                    || parts.group(2).length() > 60
                    || parts.group(1).length() > 10) {
                throw refused(i, "years lie between 1 and " + MOST_YEARS + ", and names are short.");
            }
            String prefix = parts.group(1).equals(OTHERS) ? "" : parts.group(1).toUpperCase(Locale.ROOT);
            if (!before.add(prefix)) {
                throw refused(i, "“" + parts.group(1) + "” stands above already.");
            }
            rules.add(new Rule(prefix, parts.group(2), years));
        }
        if (rules.size() > MOST) {
            throw Refusal.invalidField("dormancy", "text", "At most " + MOST + " states are kept.");
        }
        return new Dormancy(rules);
    }

    private static Refusal refused(int line, String why) {
        return Refusal.invalidField("dormancy", "text", "Line " + (line + 1) + ": " + why);
    }

    /** As they are typed. */
    public String typed() {
        return rules.stream()
                .map(rule ->
                        (rule.prefix().isEmpty() ? OTHERS : rule.prefix()) + " " + rule.state() + " " + rule.years())
                .collect(Collectors.joining("\n"));
    }

    /** The rule for an address; the longest beginning that fits. */
    public Optional<Rule> of(String postalCode) {
        String code = postalCode.strip().toUpperCase(Locale.ROOT);
        return rules.stream()
                .filter(rule -> code.startsWith(rule.prefix()))
                .max(Comparator.comparingInt(rule -> rule.prefix().length()));
    }
}
